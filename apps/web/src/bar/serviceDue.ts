import type { Bar, Grinder } from '@tempera/contract/bar';
import { benchGrinderOf, benchTargetOf } from '@tempera/contract/station';
import { benchState } from '@tempera/core/calibration';
import { dueInService } from '@tempera/core/day';
import type { StandingFacts } from '@tempera/core/facts';
import { businessDay, momentOf } from '@tempera/core/house';
import { useCallback } from 'react';
import { memoryOf } from '../kernel/barMemory.ts';
import { useSession } from '../kernel/session.ts';
import { useSheets } from '../kernel/sheets.ts';
import { useBar } from './queries.ts';
import { useStandingFacts } from './useStandingFacts.ts';

/** When the bar closes on the business day of a moment, ms since the epoch; null where the house does not say. */
export type ClosesAt = (atMs: number) => number | null;

/** When the house closes. */
export function useClosesAt(): ClosesAt {
  const { data: session } = useSession();
  const { data: cafes } = useSheets('cafe');
  const closesMin = cafes?.[0]?.sheet.closesMin ?? null;
  const timeZone = session?.site.timeZone ?? null;
  const dayStartsMin = session?.site.dayStartsMin ?? 0;
  return useCallback(
    (atMs) =>
      closesMin === null || timeZone === null
        ? null
        : momentOf(businessDay(atMs, timeZone, dayStartsMin), closesMin, timeZone),
    [closesMin, timeZone, dayStartsMin],
  );
}

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
  const caseAt = (nowMs: number) => benchState(facts, station, target, bar.house, nowMs, memory).adviceCase;
  const dueMs = dueInService(facts, grinder.id, caseAt, closesAt);
  due.set(grinder.id, dueMs);
  return dueMs;
}

/** The same for one grinder by its id; null while the bar is read. */
export function useServiceDueMs(grinderId: string): number | null {
  const { data: bar } = useBar();
  const facts = useStandingFacts();
  const closesAt = useClosesAt();
  const grinder = bar?.grinders.find(({ id }) => id === grinderId);
  return bar && grinder ? serviceDueMs(bar, facts, grinder, closesAt) : null;
}
