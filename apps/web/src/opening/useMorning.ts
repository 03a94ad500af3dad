import type { Bar } from '@tempera/contract/bar';
import { mayAlone } from '@tempera/contract/signOffs';
import { jobsNotSignedOff } from './jobsNotSignedOff.ts';
import type { Person, Session, Welcome } from '@tempera/contract/team';
import { warmthOf } from '@tempera/core/bar';
import { factsSince, factsWhere, standingFacts, stepsOf, type RunKind, type StandingFacts } from '@tempera/core/facts';
import {
  morningOf,
  openingState,
  quickEffort,
  quickPlan,
  usualEffort,
  type JobState,
  type Morning,
  type PlannedTask,
} from '@tempera/core/opening';
import { businessDay } from '@tempera/core/house';
import { useMemo } from 'react';
import { useBar, useLearned, useStandingFacts, useUpkeep } from '../bar/index.ts';
import { useSheets } from '../kernel/sheets.ts';
import { usePeople, useWelcome } from '../team/index.ts';
import { useNow } from '../ui/useNow.ts';
import type { PlanFound, PlanJob } from './planJob.ts';
import { useHistory } from './queries.ts';
import { runJobs } from './runJobs.ts';
import { usePlan } from './usePlan.ts';
import { runSkill } from './words.ts';

export interface MorningView {
  bar: Bar;
  people: readonly Opener[];
  morning: Morning;
  states: JobState[];
  /** What stands of the whole bar. */
  facts: StandingFacts;
  plan: PlanFound | null;
  /** Who does what and when: by the plan, or by a quick one while the first is still being made. */
  tasks: readonly PlannedTask[];
  nowMs: number;
  nameOf: (id: string | null) => string;
  /** The coffee in a grinder. */
  coffeeOf: (grinderId: string | null) => string;
}

/** The plan's clock goes in steps: two devices that look at the same facts make the same plan. */
const PLAN_STEP_MS = 120_000;

/** Names of everything that a job may be at or by. */
function namesOf(bar: Bar | undefined, people: readonly Person[]): Map<string, string> {
  const things = bar ? [...bar.machines, ...bar.machines.flatMap(({ groups }) => groups), ...bar.grinders] : [];
  return new Map([...things, ...people].map(({ id, name }) => [id, name]));
}

/** Somebody who may be in on a run; `signedOff` for openings or closings, where the house keeps such sign-offs. */
export type Opener = Person & { signedOff?: boolean; mayNot?: readonly string[] };

function openers(
  welcome: Welcome | undefined,
  sheets: ReturnType<typeof usePeople>,
  { site, person }: Session,
  day: string,
  run: RunKind,
): readonly Opener[] {
  const people = welcome?.sites.find(({ id }) => id === site.id)?.people ?? [person];
  return people.map((one) => ({
    ...one,
    signedOff: mayAlone(sheets, one.id, runSkill(run), day),
  }));
}

const NOTHING = standingFacts([]);

/** Whether something that is kept up was due when the run began, or was seen to in it: its job stays until the run is over. */
function useUpkeepDue(session: Session, facts: StandingFacts, morning: Morning | null): boolean {
  const fromMs = morning?.fromMs ?? null;
  const before = useMemo(
    () => (fromMs === null ? NOTHING : factsWhere(facts, ({ at }) => Date.parse(at) < fromMs)),
    [facts, fromMs],
  );
  const states = useUpkeep(session, before);
  const seen = fromMs !== null && stepsOf(factsSince(facts, fromMs)).some(({ body }) => SEEN_TO.has(body.step));
  // An evening has time for what falls due this week; a morning only for what is due.
  const soon = morning?.run === 'closing';
  return seen || (states?.some(({ state }) => state === 'due' || (soon && state === 'soon')) ?? false);
}
const SEEN_TO: ReadonlySet<string> = new Set(['upkept', 'upkeepSeen']);

/** The morning in hand: where each of its jobs stands, and the plan of what is left. */
export function useMorning(session: Session) {
  const nowMs = useNow();
  const bar = useBar();
  const { data: learned } = useLearned();
  const { data: history } = useHistory();
  const { data: groupSheets } = useSheets('group');
  const { data: welcome } = useWelcome();
  const facts = useStandingFacts();
  const data = bar.data;
  const sheets = usePeople();
  const planMs = Math.floor(nowMs / PLAN_STEP_MS) * PLAN_STEP_MS;
  const dayFromMs = data === undefined ? planMs : Date.parse(data.memory.upTo);
  const morning = useMemo(() => morningOf(facts, planMs), [facts, planMs]);
  const run = morning?.run ?? 'opening';
  const upkeepDue = useUpkeepDue(session, facts, morning);
  const states = useMemo(() => {
    if (!data || !morning) return [];
    const buttonsOf = (id: string): number => groupSheets?.find((sheet) => sheet.id === id)?.sheet.buttons.length ?? 0;
    return openingState(runJobs(data, facts, morning, buttonsOf, upkeepDue), facts, morning.fromMs);
  }, [data, groupSheets, facts, morning, upkeepDue]);

  const people = useMemo((): readonly Opener[] => {
    const day = businessDay(dayFromMs, session.site.timeZone, session.site.dayStartsMin);
    const mayNot = jobsNotSignedOff(data, states, sheets, day);
    return openers(welcome, sheets, session, day, run).map((one) => ({ ...one, mayNot: mayNot(one.id) }));
  }, [data, states, welcome, sheets, session, dayFromMs, run]);

  const names = useMemo(() => namesOf(data, people), [data, people]);
  const input = useMemo((): PlanJob['input'] | null => {
    if (!data || !morning) return null;
    const warmUps = new Map(
      (learned?.machines ?? []).map(({ id, warmUpMin, sdMin }) => [id, { meanMin: warmUpMin, sdMin }]),
    );
    const onSinceMs = new Map(
      data.machines.flatMap(({ id }): [string, number][] => {
        const warmth = warmthOf(facts, id, planMs);
        return warmth.is === 'warming' ? [[id, warmth.sinceMs]] : [];
      }),
    );
    const scales = data.fixtures.filter(({ kind }) => kind === 'scale').length;
    const minutes = history?.minutes ?? {};
    return { morning, jobs: states, people, history: minutes, warmUps, onSinceMs, scales, nowMs: planMs };
  }, [data, morning, learned, history, states, planMs, facts, people]);
  const job = useMemo((): PlanJob | null => {
    if (!data || !input || !learned || !history) return null;
    const digest = input.jobs.map(({ job: { key }, standing, personId, notRight }) => [
      key,
      standing,
      personId,
      notRight,
    ]);
    return {
      key: JSON.stringify([planMs, input.morning, digest, facts.length]),
      input,
      bar: data,
      facts,
      effort: input.jobs.every(({ standing }) => standing !== 'done') ? usualEffort : quickEffort,
    };
  }, [data, input, learned, history, planMs, facts]);
  const plan = usePlan(job);
  // Until the worker has answered for the first time a plan by hand tells the next thing: nobody waits for a solver.
  const tasks = useMemo(
    () => plan?.plan.tasks ?? (input ? quickPlan({ ...input, shots: new Map() }) : []),
    [plan, input],
  );

  const nameOf = (id: string | null): string => names.get(id ?? '') ?? '';
  const view: MorningView | null =
    data && morning
      ? {
          bar: data,
          people,
          morning,
          states,
          facts,
          plan,
          tasks,
          nowMs,
          nameOf,
          coffeeOf: (id) => data.grinders.find((grinder) => grinder.id === id)?.coffee ?? '',
        }
      : null;
  return {
    bar: data,
    people,
    view,
    nowMs,
    facts,
    nameOf,
    error: data ? null : bar.error,
    retry: () => void bar.refetch(),
  };
}
