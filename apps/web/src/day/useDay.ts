import type { Bar, Group } from '@tempera/contract/bar';
import type { GrinderState } from '@tempera/core/bar';
import { dayNumbers, serve, type ServiceAdvice } from '@tempera/core/day';
import { momentOf, businessDay } from '@tempera/core/house';
import type { StandingFacts } from '@tempera/core/facts';
import type { Session } from '@tempera/contract/team';
import { useMemo } from 'react';
import { useBar, useGrinderStates, useStandingFacts } from '../bar/index.ts';
import { memoryOf, viewBench } from '../calibration/index.ts';
import { useSheets } from '../kernel/sheets.ts';

/** A grinder in service: where it stands against its aim by now, and what the day makes of it. */
export interface DayStation {
  grinder: Bar['grinders'][number];
  state: GrinderState;
  lastGroup: Group | null;
  advice: ServiceAdvice;
}

const HALF_DAY_MS = 12 * 3_600_000;

/** Every grinder that holds, by when it is to be looked at; null while the bar is read. */
export function useDay(session: Session, nowMs: number): DayStation[] | null {
  const { data: bar } = useBar();
  const facts = useStandingFacts();
  const { all } = useGrinderStates(bar, nowMs);
  const { data: cafes } = useSheets('cafe');
  const closesMin = cafes?.[0]?.sheet.closesMin ?? null;
  const endsAtMs = useMemo(() => {
    const { timeZone, dayStartsMin } = session.site;
    if (closesMin === null) return nowMs + HALF_DAY_MS;
    return momentOf(businessDay(nowMs, timeZone, dayStartsMin), closesMin, timeZone);
  }, [session.site, closesMin, nowMs]);
  return useMemo(() => (bar ? stationsOf(bar, facts, all, endsAtMs, nowMs) : null), [bar, facts, all, endsAtMs, nowMs]);
}

function stationsOf(
  bar: Bar,
  facts: StandingFacts,
  all: ReturnType<typeof useGrinderStates>['all'],
  endsAtMs: number,
  nowMs: number,
): DayStation[] {
  const memory = memoryOf(bar, facts);
  const held = all.filter(({ state }) => state.standing === 'held' || state.standing === 'due');
  const service = { endsAtMs, cupsPerHour: dayNumbers.cupsPerHour };
  return held
    .map(({ grinder, state, lastGroup }) => {
      const { state: bench } = viewBench(grinder, facts, bar, nowMs, memory);
      return { grinder, state, lastGroup, advice: serve(bench.adviceCase, service) };
    })
    .toSorted((a, b) => (a.state.dueAtMs ?? Infinity) - (b.state.dueAtMs ?? Infinity));
}
