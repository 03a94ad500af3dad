import type { Bar, Grinder } from '@tempera/contract/bar';
import { benchGrinderOf, benchTargetOf } from '@tempera/contract/station';
import { benchState } from '@tempera/core/calibration';
import { dueInService } from '@tempera/core/day';
import type { StandingFacts } from '@tempera/core/facts';
import { memoryOf } from '../kernel/barMemory.ts';

/** When the bar closes on the business day of a moment, ms since the epoch; null where the house does not say. */
export type ClosesAt = (atMs: number) => number | null;

const made = new WeakMap<StandingFacts, { closesAt: ClosesAt; due: Map<string, number | null> }>();

/** When the day's controller wants a grinder looked at, ms since the epoch; found once for the same facts. Null: never locked. */
export function serviceDueMs(bar: Bar, facts: StandingFacts, grinder: Grinder, closesAt: ClosesAt): number | null {
  const known = made.get(facts);
  const { due } = known?.closesAt === closesAt ? known : { due: new Map<string, number | null>() };
  if (known?.due !== due) made.set(facts, { closesAt, due });
  const found = due.get(grinder.id);
  if (found !== undefined) return found;
  const memory = memoryOf(bar, facts);
  const target = benchTargetOf(grinder);
  const station = benchGrinderOf(grinder, bar.recipesNamed);
  const caseAt = (nowMs: number) => benchState(facts, station, target, bar.house, nowMs, memory).serviceCase();
  const dueMs = dueInService(facts, grinder.id, caseAt, closesAt);
  due.set(grinder.id, dueMs);
  return dueMs;
}
