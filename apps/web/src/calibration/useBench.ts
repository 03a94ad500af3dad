import type { Bar, Grinder, Group, Machine } from '@tempera/contract/bar';
import { withRecipeInHand } from '@tempera/contract/station';
import {
  isCheck,
  type Advice,
  type BarMemory,
  type BenchGrinder,
  type BenchState,
  type RecipeTarget,
} from '@tempera/core/calibration';
import { dayNumbers } from '@tempera/core/day';
import { ofGrinder, type FactOf, type StandingFacts } from '@tempera/core/facts';
import { pumpWindowS } from '@tempera/core/house';
import { MS_PER_MINUTE } from '@tempera/core/numbers';
import { useMemo } from 'react';
import { useBar } from '../bar/index.ts';
import { useUnsent } from '../kernel/facts.tsx';
import { standingOf } from '../kernel/standing.ts';
import { memoryOf } from '../kernel/barMemory.ts';
import { useBenchFacts } from './queries.ts';
import { viewBench } from './viewBench.ts';

export interface BenchView {
  bar: Bar;
  grinder: Grinder;
  group: Group;
  /** The machine that the group is in. */
  machine: Machine | null;
  groups: Group[];
  target: RecipeTarget;
  house: Bar['house'];
  /** What stands of the whole bar, this grinder's shots with their traces. */
  standing: StandingFacts;
  /** What stands of this grinder. */
  facts: StandingFacts;
  /** The grinder as its bench state was made with it. */
  station: BenchGrinder;
  state: BenchState;
  advice: Advice;
  nowMs: number;
  /** What the whole bar has taught, these facts included. */
  memory: BarMemory;
  /** The dose that was weighed and not yet pulled. */
  dose: FactOf<'dose'> | null;
}

/** The grinder with its window as the bench's clock sees it, which starts with the pump. */
function onBenchClock(grinder: Grinder): Grinder {
  const { min, max } = pumpWindowS(grinder.recipe);
  return { ...grinder, recipe: { ...grinder.recipe, timeFrom: 'pump', timeMinS: min, timeMaxS: max } };
}

/** Ground coffee that nobody pulled by then was drunk by a guest, or is thrown out. */
const WAITS_MS = dayNumbers.chamberMin * MS_PER_MINUTE;

/** The dose in the portafilter: the last weighed one, unless a shot was pulled since, or it is too old to be. */
function waitingDose(facts: StandingFacts, nowMs: number): FactOf<'dose'> | null {
  const last = facts.findLast((fact) => fact.kind === 'dose' || fact.kind === 'shot' || fact.kind === 'lock');
  return last?.kind === 'dose' && nowMs - Date.parse(last.at) < WAITS_MS ? last : null;
}

/** The shots that checked a group at this bench, oldest first. */
export const checksOf = ({ facts, group }: Pick<BenchView, 'facts' | 'group'>): FactOf<'shot'>[] =>
  facts.filter((fact): fact is FactOf<'shot'> => isCheck(fact) && fact.groupId === group.id);

/** A bench: its station, everything known of it, and what to do next. Null view while reading. */
export function useBench(grinderId: string, groupId: string, nowMs: number, recipeId: string | null = null) {
  const bar = useBar();
  const bench = useBenchFacts(grinderId);
  const unsent = useUnsent();
  const data = bar.data;
  const found = data?.grinders.find((candidate) => candidate.id === grinderId);
  const grinder = useMemo(() => found && onBenchClock(withRecipeInHand(found, recipeId)), [found, recipeId]);
  const groups = useMemo(() => data?.machines.flatMap((machine) => machine.groups) ?? [], [data]);
  const group = groups.find((candidate) => candidate.id === groupId);
  const machine = data?.machines.find(({ id }) => id === group?.machineId) ?? null;
  const benchFacts = bench.data?.facts;
  // Of this grinder the bench has read the shots with their traces; of the others the bar tells enough.
  const standing = useMemo(() => {
    if (!data || !benchFacts) return null;
    const read = new Set(benchFacts.map(({ id }) => id));
    const others = data.facts.filter(({ id }) => !read.has(id));
    return standingOf([...others, ...benchFacts, ...data.steps], unsent);
  }, [data, benchFacts, unsent]);
  const memory = useMemo(() => (data && standing ? memoryOf(data, standing) : null), [data, standing]);
  const facts = useMemo(() => standing && ofGrinder(standing, grinderId), [standing, grinderId]);
  const view = useMemo((): BenchView | null => {
    if (!data || !grinder || !group || !standing || !facts || !memory) return null;
    return {
      bar: data,
      grinder,
      group,
      machine,
      groups,
      house: data.house,
      standing,
      facts,
      nowMs,
      dose: waitingDose(facts, nowMs),
      ...viewBench(grinder, standing, data, nowMs, memory),
    };
  }, [data, grinder, group, machine, groups, standing, facts, memory, nowMs]);
  return {
    view,
    unknown: Boolean(data) && (!grinder || !group),
    error: data && benchFacts ? null : (bar.error ?? bench.error),
    retry: () => void Promise.all([bar.refetch(), bench.refetch()]),
  };
}
