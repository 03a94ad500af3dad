import { MS_PER_HOUR } from '../numbers/index.ts';
import type { HouseEvent } from './adviceCase.ts';
import { engineDefaults } from './engineDefaults.ts';

/** Variance that a level gains between two moments, from time and from what happened in between. */
export function elapsedVariance(fromMs: number, toMs: number, events: readonly HouseEvent[]): number {
  const d = engineDefaults;
  const hours = Math.max(0, toMs - fromMs) / MS_PER_HOUR;
  const eventSd: Record<HouseEvent['kind'], number> = {
    newBag: d.newBagSd,
    newCoffee: d.levelSdNever,
    refill: d.refillSd,
    cleaned: d.cleanedSd,
    serviced: d.servicedSd,
  };
  return events
    .filter((event) => event.atMs > fromMs && event.atMs <= toMs)
    .reduce((sum, event) => sum + eventSd[event.kind] ** 2, d.driftSdPerRootHour ** 2 * hours);
}
