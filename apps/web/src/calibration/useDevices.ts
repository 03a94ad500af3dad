import { dialOf, targetOf } from '@tempera/contract/station';
import { stepsOf } from '@tempera/core/facts';
import { useMemo } from 'react';
import { useStandingFacts } from '../bar/index.ts';
import { simulatedDevices, type BenchDevices } from '../capture/index.ts';
import type { Welcome } from '@tempera/contract/team';
import { useWelcome } from '../team/index.ts';
import type { BenchView } from './useBench.ts';

/** What the simulated bar runs by. */
export type Simulated = Pick<NonNullable<Welcome['demo']>, 'speed' | 'seed'>;

/**
 * The devices of a bench: the simulated ones in the demo, none elsewhere until real ones are connected.
 * @param demo how fast the simulated bar runs, and from which seed; null: there is none
 */
export function useDevices(
  view: Pick<BenchView, 'grinder' | 'standing'> & { group: { id: string } },
  siteId: string,
  demo: Simulated | null,
): BenchDevices | null {
  const { grinder, group, standing } = view;
  const clogged = useClogged(group.id);
  const [speed, seed] = [demo?.speed ?? null, demo?.seed ?? null];
  return useMemo(() => {
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
}

/** Whether the stage has clogged this group's screen, and nobody has cleaned it yet. */
function useClogged(groupId: string): boolean {
  const { data: welcome } = useWelcome();
  const facts = useStandingFacts();
  const cleaned = stepsOf(facts, 'mended').some(({ body }) => body.groupId === groupId && body.what === 'screen');
  return !cleaned && (welcome?.demo?.clogged.includes(groupId) ?? false);
}
