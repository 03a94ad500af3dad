import type { Bar, Group } from '@tempera/contract/bar';
import type { Session } from '@tempera/contract/team';
import { servesToday, type GrinderState } from '@tempera/core/bar';
import { benchGrinderOf, benchTargetOf } from '@tempera/contract/station';
import { benchState, grinderSet } from '@tempera/core/calibration';
import {
  chamberFilledMs,
  doseDueInService,
  putOffUntilMs,
  serve,
  serviceAt,
  type Service,
  type ServiceAdvice,
} from '@tempera/core/day';
import type { StandingFacts } from '@tempera/core/facts';
import { useMemo } from 'react';
import { useBar, useClosesAt, useGrinderStates, useStandingFacts } from '../bar/index.ts';
import { memoryOf } from '../kernel/barMemory.ts';

/** A grinder in service: where it stands against its aim by now, and what the day makes of it. */
export interface DayStation {
  grinder: Bar['grinders'][number];
  house: Bar['house'];
  state: GrinderState;
  lastGroup: Group | null;
  advice: ServiceAdvice;
  /** The dose as it is set, and the grind time that gives it; null where nothing is ground by time. */
  doseG: number;
  grindTimeS: number | null;
  /** Grind time of a dose at a mark, as its weighed doses say; null where none was weighed. */
  grindTimeFor: (doseG: number, setting: number) => number | null;
  /** Until when a change that is advised was put off, ms since the epoch; null: nobody put it off. */
  putOffUntilMs: number | null;
  /** When a dose is next weighed, ms since the epoch; null where the house weighs none in service. */
  doseDueAtMs: number | null;
  /** Since when ground coffee waits in its chamber, ms since the epoch; null: none does. */
  chamberFilledAtMs: number | null;
}

/** Every grinder that serves today, by what is due first; null while the bar is read. */
export function useDay({ site }: Pick<Session, 'site'>, nowMs: number): DayStation[] | null {
  const { data: bar } = useBar();
  const facts = useStandingFacts();
  const { all } = useGrinderStates(bar, nowMs);
  const closesAt = useClosesAt();
  return useMemo(
    () =>
      bar
        ? stationsInService(
            bar,
            facts,
            all.filter(({ state }) => servesToday(state, site, nowMs)),
            serviceAt(facts, nowMs, closesAt(nowMs)),
            nowMs,
          )
        : null,
    [bar, facts, all, site, closesAt, nowMs],
  );
}

/** When anything of a station is due; what is advised is due before all else, unless it was put off. */
export const dueMsOf = ({ state, doseDueAtMs, advice, putOffUntilMs }: DayStation): number =>
  Math.min(doseDueAtMs ?? Infinity, advice.action === 'leave' ? (state.dueAtMs ?? Infinity) : (putOffUntilMs ?? 0));

/** Whether a change is asked for now. */
export const asksForChange = ({ advice, putOffUntilMs }: DayStation, nowMs: number): boolean =>
  advice.action !== 'leave' && nowMs >= (putOffUntilMs ?? 0);

function stationsInService(
  bar: Bar,
  facts: StandingFacts,
  serving: ReturnType<typeof useGrinderStates>['all'],
  service: Service,
  nowMs: number,
): DayStation[] {
  const memory = memoryOf(bar, facts);
  return serving
    .map(({ grinder, state, lastGroup }): DayStation => {
      const target = benchTargetOf(grinder);
      const station = benchGrinderOf(grinder, bar.recipesNamed);
      const bench = benchState(facts, station, target, bar.house, nowMs, memory);
      const set = grinderSet(facts, grinder.id);
      return {
        grinder,
        house: bar.house,
        state,
        lastGroup,
        advice: serve(bench.serviceCase(), service),
        doseG: Math.round(10 * (target.doseG + bench.adviceCase.trimG)) / 10,
        grindTimeS: set?.doses.find(({ recipeVersionId }) => recipeVersionId === grinder.recipe.id)?.doseTimeS ?? null,
        grindTimeFor: (doseG, setting) => bench.grindTimeS(doseG, setting),
        chamberFilledAtMs: chamberFilledMs(facts, grinder.id),
        putOffUntilMs: putOffUntilMs(facts, grinder.id),
        doseDueAtMs: doseDueInService(facts, grinder.id, target, bar.house, service.cupsPerHour),
      };
    })
    .toSorted((a, b) => dueMsOf(a) - dueMsOf(b));
}
