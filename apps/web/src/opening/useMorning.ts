import type { Bar } from '@tempera/contract/bar';
import type { NewFact, NewStep } from '@tempera/contract/journal';
import type { Person, Session } from '@tempera/contract/team';
import { warmthOf } from '@tempera/core/bar';
import { asCorrected } from '@tempera/core/facts';
import {
  jobsOf,
  morningOf,
  openingState,
  quickEffort,
  usualEffort,
  type JobState,
  type Morning,
  type OpeningFact,
  type OpeningStep,
} from '@tempera/core/opening';
import { useMemo } from 'react';
import { useBar, useLearned } from '../bar/index.ts';
import { inBar } from '../calibration/index.ts';
import { useUnsent } from '../shell/facts.tsx';
import type { Entry } from '../shell/outbox.ts';
import { useSheets } from '../shell/sheets.ts';
import { useWelcome } from '../team/index.ts';
import { useNow } from '../ui/useNow.ts';
import type { PlanFound, PlanJob } from './planJob.ts';
import { useHistory } from './queries.ts';
import { usePlan } from './usePlan.ts';

export interface MorningView {
  bar: Bar;
  people: readonly Person[];
  morning: Morning;
  states: JobState[];
  facts: (NewFact & OpeningFact)[];
  steps: (NewStep & OpeningStep)[];
  plan: PlanFound | null;
  nowMs: number;
  nameOf: (id: string | null) => string;
}

/** The plan's clock goes in steps: two devices that look at the same facts make the same plan. */
const PLAN_STEP_MS = 120_000;

/** Everything written, sent or not, with who wrote it. */
function entries(bar: Bar | undefined, unsent: readonly Entry[]) {
  const known = new Set([...(bar?.facts ?? []), ...(bar?.steps ?? [])].map(({ id }) => id));
  const waiting = unsent
    .filter(({ fact, refusal }) => refusal === null && !known.has(fact.id))
    .map(({ fact, personId }) => ({ ...fact, personId }));
  return {
    facts: [...(bar?.facts ?? []), ...waiting.filter((fact) => fact.kind !== 'step')] as MorningView['facts'],
    steps: [...(bar?.steps ?? []), ...waiting.filter((fact) => fact.kind === 'step')] as MorningView['steps'],
  };
}

/** The group that a grinder is dialled in on: where it was locked last, or else the first. */
function referenceGroup(grinderId: string, facts: readonly OpeningFact[], groups: readonly { id: string }[]): string {
  const lock = asCorrected(facts).findLast(
    (fact) => fact.kind === 'lock' && fact.grinderId === grinderId && groups.some(({ id }) => id === fact.groupId),
  );
  return lock?.groupId ?? groups[0]?.id ?? '';
}

/** Names of everything that a job may be at or by. */
function namesOf(bar: Bar | undefined, people: readonly Person[]): Map<string, string> {
  const things = bar ? [...bar.machines, ...bar.machines.flatMap(({ groups }) => groups), ...bar.grinders] : [];
  return new Map([...things, ...people].map(({ id, name }) => [id, name]));
}

/** The morning in hand: where each of its jobs stands, and the plan of what is left. */
export function useMorning(session: Session) {
  const nowMs = useNow();
  const bar = useBar();
  const { data: learned } = useLearned();
  const { data: history } = useHistory();
  const { data: groupSheets } = useSheets('group');
  const { data: welcome } = useWelcome();
  const unsent = useUnsent();
  const data = bar.data;
  const people = useMemo(
    () => welcome?.sites.find(({ id }) => id === session.site.id)?.people ?? [session.person],
    [welcome, session],
  );
  const { facts, steps } = useMemo(() => entries(data, unsent), [data, unsent]);
  const morning = useMemo(() => morningOf(steps, nowMs), [steps, nowMs]);
  const fromMs = morning?.fromMs ?? nowMs;
  const states = useMemo(() => {
    if (!data) return [];
    const groups = data.machines.flatMap((machine) => machine.groups);
    const buttonsOf = (id: string): number => groupSheets?.find((sheet) => sheet.id === id)?.sheet.buttons.length ?? 0;
    const jobs = jobsOf({
      machines: data.machines.map(({ id, groups: own }) => ({
        id,
        groups: own.map((group) => ({ id: group.id, buttons: buttonsOf(group.id) })),
      })),
      grinders: data.grinders.map(({ id }) => ({ id, referenceGroupId: referenceGroup(id, facts, groups) })),
      milk: data.fixtures.some(({ kind }) => kind === 'milk'),
      byVolume: data.house.endsShot === 'volume',
    });
    return openingState(jobs, facts, steps, fromMs);
  }, [data, groupSheets, facts, steps, fromMs]);

  const names = useMemo(() => namesOf(data, people), [data, people]);
  const planMs = Math.floor(nowMs / PLAN_STEP_MS) * PLAN_STEP_MS;
  const job = useMemo((): PlanJob | null => {
    if (!data || !morning || !learned || !history) return null;
    const warmUps = new Map(learned.machines.map(({ id, warmUpMin, sdMin }) => [id, { meanMin: warmUpMin, sdMin }]));
    const onSinceMs = new Map(
      data.machines.flatMap(({ id }): [string, number][] => {
        const warmth = warmthOf(steps, id, planMs);
        return warmth.is === 'warming' ? [[id, warmth.sinceMs]] : [];
      }),
    );
    const digest = states.map(({ job: { key }, standing, personId, notRight }) => [key, standing, personId, notRight]);
    return {
      key: JSON.stringify([planMs, morning, digest, facts.length]),
      input: {
        morning,
        jobs: states,
        people,
        history: history.minutes,
        warmUps,
        onSinceMs,
        scales: data.fixtures.filter(({ kind }) => kind === 'scale').length,
        nowMs: planMs,
      },
      grinders: data.grinders.map(inBar),
      facts,
      house: data.house,
      effort: states.every(({ standing }) => standing !== 'done') ? usualEffort : quickEffort,
    };
  }, [data, morning, learned, history, steps, states, planMs, facts, people]);
  const plan = usePlan(job);

  const view: MorningView | null =
    data && morning
      ? { bar: data, people, morning, states, facts, steps, plan, nowMs, nameOf: (id) => names.get(id ?? '') ?? '' }
      : null;
  return { bar: data, people, view, nowMs, steps, error: data ? null : bar.error, retry: () => void bar.refetch() };
}
