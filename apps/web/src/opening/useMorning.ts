import type { Bar } from '@tempera/contract/bar';
import type { Person, Session } from '@tempera/contract/team';
import { warmthOf } from '@tempera/core/bar';
import { ofGrinder, type StandingFacts } from '@tempera/core/facts';
import { lastLock } from '@tempera/core/calibration';
import {
  jobsOf,
  morningOf,
  openingState,
  quickEffort,
  usualEffort,
  type JobState,
  type Morning,
} from '@tempera/core/opening';
import { useMemo } from 'react';
import { useBar, useLearned, useStandingFacts } from '../bar/index.ts';
import { useSheets } from '../kernel/sheets.ts';
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
  /** What stands of the whole bar. */
  facts: StandingFacts;
  plan: PlanFound | null;
  nowMs: number;
  nameOf: (id: string | null) => string;
}

/** The plan's clock goes in steps: two devices that look at the same facts make the same plan. */
const PLAN_STEP_MS = 120_000;

/** The group that a grinder is dialled in on: where it was locked last, or else the first. */
function referenceGroup(grinderId: string, facts: StandingFacts, groups: readonly { id: string }[]): string {
  const groupId = lastLock(ofGrinder(facts, grinderId))?.groupId ?? null;
  return groups.find(({ id }) => id === groupId)?.id ?? groups[0]?.id ?? '';
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
  const facts = useStandingFacts();
  const data = bar.data;
  const people = useMemo(
    () => welcome?.sites.find(({ id }) => id === session.site.id)?.people ?? [session.person],
    [welcome, session],
  );
  const morning = useMemo(() => morningOf(facts, nowMs), [facts, nowMs]);
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
      scale: data.fixtures.some(({ kind }) => kind === 'scale'),
      provesDoses: data.house.dosing === 'timed' && data.house.doseProof === 'meanOfThree',
    });
    return openingState(jobs, facts, fromMs);
  }, [data, groupSheets, facts, fromMs]);

  const names = useMemo(() => namesOf(data, people), [data, people]);
  const planMs = Math.floor(nowMs / PLAN_STEP_MS) * PLAN_STEP_MS;
  const job = useMemo((): PlanJob | null => {
    if (!data || !morning || !learned || !history) return null;
    const warmUps = new Map(learned.machines.map(({ id, warmUpMin, sdMin }) => [id, { meanMin: warmUpMin, sdMin }]));
    const onSinceMs = new Map(
      data.machines.flatMap(({ id }): [string, number][] => {
        const warmth = warmthOf(facts, id, planMs);
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
      bar: data,
      facts,
      effort: states.every(({ standing }) => standing !== 'done') ? usualEffort : quickEffort,
    };
  }, [data, morning, learned, history, states, planMs, facts, people]);
  const plan = usePlan(job);

  const view: MorningView | null =
    data && morning
      ? { bar: data, people, morning, states, facts, plan, nowMs, nameOf: (id) => names.get(id ?? '') ?? '' }
      : null;
  return { bar: data, people, view, nowMs, facts, error: data ? null : bar.error, retry: () => void bar.refetch() };
}
