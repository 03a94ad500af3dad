import { useMemo } from 'react';
import type { BenchDevices } from '../capture/index.ts';
import { simulatedDevices } from '../capture/index.ts';
import { dialOf, targetOf, type BenchView } from './useBench.ts';

/**
 * The devices of a bench: the simulated ones in the demo, none elsewhere until real ones are connected.
 * @param speed how fast the simulated bar runs; null: there is none
 */
export function useDevices(view: BenchView, siteId: string, speed: number | null): BenchDevices | null {
  const { grinder, group, facts } = view;
  return useMemo(() => {
    if (speed === null) return null;
    const station = {
      siteId,
      groupId: group.id,
      grinder: { ...grinder, dial: dialOf(grinder) },
      recipe: targetOf(grinder),
    };
    return simulatedDevices(station, facts, speed);
  }, [speed, siteId, group.id, grinder, facts]);
}
