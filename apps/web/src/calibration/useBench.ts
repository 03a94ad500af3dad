import type { Bar, Grinder, Group } from '@tempera/contract/bar';
import {
  advise,
  benchState,
  rememberedFor,
  type Advice,
  type BenchState,
  type RecipeTarget,
  type Remembered,
  type TimedDose,
} from '@tempera/core/calibration';
import { pumpWindowS } from '@tempera/core/house';
import { inOrder, isStep, standingSteps, type FactOf } from '@tempera/core/facts';
import type { NewFact, NewStep } from '@tempera/contract/journal';
import { useMemo } from 'react';
import { useBar } from '../bar/index.ts';
import { mergeFacts, mergeSteps } from '../shell/mergeFacts.ts';
import { useUnsent } from '../shell/facts.tsx';
import { useBenchFacts } from './queries.ts';
import { dialOf, inBar, targetOf } from './station.ts';

export interface BenchView {
  grinder: Grinder;
  group: Group;
  groups: Group[];
  target: RecipeTarget;
  house: Bar['house'];
  /** All facts of this grinder that are known here, oldest first. */
  facts: NewFact[];
  state: BenchState;
  advice: Advice;
  grinders: Grinder[];
  /** Facts that the memory of the whole bar is made from. */
  memoryFacts: NewFact[];
  nowMs: number;
  /** What the whole bar knew before this grinder's shots since its last lock. */
  remembered: Remembered | null;
  /** The dose that was weighed and not yet pulled. */
  dose: FactOf<'dose'> | null;
}

/** The grinder with its window as the bench's clock sees it, which starts with the pump. */
function onBenchClock(grinder: Grinder): Grinder {
  const { min, max } = pumpWindowS(grinder.recipe);
  return { ...grinder, recipe: { ...grinder.recipe, timeFrom: 'pump', timeMinS: min, timeMaxS: max } };
}

/** Facts of a bench folded into where it stands, with the engine's advice. */
export function viewBench(
  grinder: Grinder,
  facts: readonly NewFact[],
  house: BenchView['house'],
  nowMs: number,
  remembered: Remembered | null,
  weighed: readonly TimedDose[] = [],
) {
  const target = targetOf(grinder);
  const state = benchState(facts, { ...grinder, dial: dialOf(grinder), weighed }, target, house, nowMs, remembered);
  return { state, target, advice: advise(state.adviceCase), remembered };
}

/** The dose in the portafilter: the last weighed one, unless a shot was pulled since. */
function waitingDose(facts: readonly NewFact[]): FactOf<'dose'> | null {
  const last = facts.findLast((fact) => fact.kind === 'dose' || fact.kind === 'shot' || fact.kind === 'lock');
  return last?.kind === 'dose' ? last : null;
}

/** What the dose time of the opening's step taught: doses that never came to the bench. */
function weighedFor(grinderId: string, steps: readonly NewStep[]): TimedDose[] {
  return standingSteps(steps)
    .filter(isStep('doseTime'))
    .flatMap(({ at, body: { grinderId: of, grindTimeS, dosesG } }) =>
      of === grinderId && grindTimeS !== null
        ? dosesG.map((doseG) => ({ atMs: Date.parse(at), grindTimeS, doseG }))
        : [],
    );
}

/** A bench: its station, everything known of it, and what to do next. Null view while reading. */
export function useBench(grinderId: string, groupId: string, nowMs: number) {
  const bar = useBar();
  const bench = useBenchFacts(grinderId);
  const unsent = useUnsent();
  const found = bar.data?.grinders.find((candidate) => candidate.id === grinderId);
  const grinder = useMemo(() => found && onBenchClock(found), [found]);
  const groups = useMemo(() => bar.data?.machines.flatMap((machine) => machine.groups) ?? [], [bar.data]);
  const group = groups.find((candidate) => candidate.id === groupId);
  const house = bar.data?.house;
  const facts = useMemo(
    () =>
      inOrder(
        mergeFacts(
          bench.data?.facts ?? [],
          unsent.filter((entry) => entry.fact.grinderId === grinderId),
        ),
      ),
    [bench.data, unsent, grinderId],
  );
  const grinders = bar.data?.grinders;
  const barFacts = bar.data?.facts;
  // What the bar remembers changes with a lock or with another grinder's shot, not with each look at the clock.
  const memoryFacts = useMemo(
    () => [...(barFacts ?? []).filter((fact) => fact.grinderId !== grinderId), ...facts],
    [grinderId, barFacts, facts],
  );
  const remembered = useMemo(
    () => (grinders ? rememberedFor(grinderId, grinders.map(inBar), memoryFacts) : null),
    [grinderId, grinders, memoryFacts],
  );
  const steps = bar.data?.steps;
  const weighed = useMemo(() => weighedFor(grinderId, mergeSteps(steps ?? [], unsent)), [grinderId, steps, unsent]);
  const view = useMemo((): BenchView | null => {
    if (!grinder || !grinders || !group || !house || !bench.data) return null;
    return {
      grinder,
      group,
      groups,
      house,
      grinders,
      facts,
      memoryFacts,
      nowMs,
      dose: waitingDose(facts),
      ...viewBench(grinder, facts, house, nowMs, remembered, weighed),
    };
  }, [grinder, grinders, group, groups, house, bench.data, facts, memoryFacts, nowMs, remembered, weighed]);
  return {
    view,
    unknown: Boolean(bar.data) && (!grinder || !group),
    error: bar.data && bench.data ? null : (bar.error ?? bench.error),
    retry: () => void Promise.all([bar.refetch(), bench.refetch()]),
  };
}
