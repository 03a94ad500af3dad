import { dialOf, targetOf } from '@tempera/contract/station';
import type { Grinder } from '@tempera/contract/bar';
import { stepsOf, type StandingFacts } from '@tempera/core/facts';
import { useMemo } from 'react';
import { useStandingFacts } from '../bar/index.ts';
import { useWelcome } from '../team/index.ts';
import type { DeviceNow, DeviceShelf } from './deviceShelf.ts';
import type { BenchDevices } from './ports.ts';
import { pullOnScale } from './pullOnScale.ts';
import { simulatedDevices } from './simulatedDevices.ts';
import { useDeviceList, useShelf } from './useShelf.ts';

interface Place {
  grinder: Grinder;
  group: { id: string };
  standing: StandingFacts;
  siteId: string;
}

/** The devices of a bench: the scale that was put to it, the simulated ones in the demo, none where there are none. */
export function useBenchDevices({ grinder, group, standing, siteId }: Place): BenchDevices | null {
  const { data: welcome } = useWelcome();
  const demo = welcome?.demo ?? null;
  const clogged = useClogged(group.id, demo?.clogged ?? []);
  const shelf = useShelf();
  const scale = scaleFor(useDeviceList(), [group.id, grinder.id]);
  const [scaleId, scaleName, canTare] = [scale?.id ?? null, scale?.name ?? '', scale?.canTare ?? false];
  const real = useMemo(
    () => (scaleId === null || !shelf ? null : realDevices(shelf, scaleId, scaleName, canTare)),
    [shelf, scaleId, scaleName, canTare],
  );
  const [speed, seed] = [demo?.speed ?? null, demo?.seed ?? null];
  const simulated = useMemo(() => {
    if (speed === null) return null;
    // What taste asks for changes nobody's bed: the simulated one stays the recipe's own.
    const recipe = grinder.before ? { ...grinder.recipe, ...grinder.before } : grinder.recipe;
    const station = {
      siteId,
      groupId: group.id,
      grinder: { ...grinder, dial: dialOf(grinder) },
      recipe: targetOf(recipe),
      clogged,
      seed,
    };
    return simulatedDevices(station, standing, speed);
  }, [speed, seed, siteId, group.id, grinder, standing, clogged]);
  return simulated ?? real;
}

/** The scale to weigh cups and doses on: one of this place's own before one that goes wherever somebody works. */
export function scaleFor(devices: readonly DeviceNow[], stationIds: readonly string[]): DeviceNow | null {
  const speaks = devices.filter(({ kind, silent }) => kind === 'scale' && silent === null);
  const own = speaks.find(({ stationId }) => stationId !== null && stationIds.includes(stationId));
  return own ?? speaks.find(({ stationId }) => stationId === null) ?? null;
}

function realDevices(shelf: DeviceShelf, id: string, name: string, canTare: boolean): BenchDevices {
  const listen = shelf.listen.bind(null, id);
  const tare = canTare ? () => shelf.tare(id) : null;
  return {
    name,
    grinder: null,
    scale: { listen },
    mishaps: [],
    drawFor: () => undefined,
    pull: (start) => pullOnScale({ listen, tare }, start),
  };
}

/** Whether the stage has clogged this group's screen, and nobody has cleaned it yet. */
function useClogged(groupId: string, clogged: readonly string[]): boolean {
  const facts = useStandingFacts();
  const cleaned = stepsOf(facts, 'mended').some(({ body }) => body.groupId === groupId && body.what === 'screen');
  return !cleaned && clogged.includes(groupId);
}
