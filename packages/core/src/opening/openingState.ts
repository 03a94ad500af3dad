import { MS_PER_HOUR, MS_PER_MINUTE } from '../numbers/index.ts';
import { aimChange, lastLock, newBagWaitsSinceMs, touchedSinceLock } from '../calibration/index.ts';
import {
  factsSince,
  standingFacts,
  ofGrinder,
  ofKind,
  stepsOf,
  type JobKind,
  type RunKind,
  type StandingFacts,
  type StepFact,
} from '../facts/index.ts';
import { jobKey, settlements, type Job } from './jobs.ts';
import type { NotRight } from './notRight.ts';

/** Where a job stands. Waiting: a gate before it is shut. */
export type JobProgress = 'waiting' | 'ready' | 'underWay' | 'done' | 'skipped';

export interface JobState {
  job: Job;
  standing: JobProgress;
  /** When it was done or skipped, ms since the epoch; null before. */
  atMs: number | null;
  beganAtMs: number | null;
  /** Who has it in hand, or did it. */
  personId: string | null;
  /** The fact to take back if it did not happen after all; null where there is none or a bench has to undo it. */
  factId: string | null;
  skippedWhy: string | null;
  notRight: NotRight | null;
}

/** The run in hand: the newest word on an opening, an afternoon or one station. */
export interface Morning {
  run: RunKind;
  /** The grinders that the run is about; null: all of them. */
  grinderIds: readonly string[] | null;
  fromMs: number;
  opensAtMs: number;
  people: { personId: string; fromMs: number }[];
  detergent: boolean;
}

/** How long after its hour a run that nobody signed for is still the one in hand: a closing never lasts until the morning. */
const STALE_MS = 12 * MS_PER_HOUR;
const STALE_CLOSING_MS = 5 * MS_PER_HOUR;

/** The morning in hand at `nowMs`; null when none was planned lately. */
export function morningOf(facts: StandingFacts, nowMs: number): Morning | null {
  const planned = stepsOf(facts, 'planned').at(-1);
  if (!planned) return null;
  const { run = 'opening', grinderIds = null, opensAt, from, people, detergent } = planned.body;
  const opensAtMs = Date.parse(opensAt);
  if (nowMs - opensAtMs > (run === 'closing' ? STALE_CLOSING_MS : STALE_MS)) return null;
  return {
    run,
    grinderIds,
    opensAtMs,
    detergent,
    fromMs: Date.parse(from),
    people: people.map((person) => ({ personId: person.personId, fromMs: Date.parse(person.from) })),
  };
}

/**
 * The run that was in hand before the one in hand began: an opening begun anew can be taken back to it.
 * @returns when that one began, and the words that planned the newest; null where nothing of its kind was left unsigned
 */
export function runBefore(facts: StandingFacts, nowMs: number): { fromMs: number; plannedIds: string[] } | null {
  const now = morningOf(facts, nowMs);
  if (!now) return null;
  const isNow = (from: string): boolean => Date.parse(from) === now.fromMs;
  const plans = stepsOf(facts, 'planned');
  const before = morningOf(standingFacts(plans.filter(({ body }) => !isNow(body.from))), nowMs);
  if (!before || before.run !== now.run || before.fromMs > now.fromMs) return null;
  const signed = stepsOf(facts, 'signedOff').some(({ at }) => between(Date.parse(at), before.fromMs, now.fromMs));
  if (signed) return null;
  return {
    fromMs: before.fromMs,
    plannedIds: plans.filter(({ body }) => isNow(body.from)).map(({ id }) => id),
  };
}

const between = (atMs: number, fromMs: number, toMs: number): boolean => atMs >= fromMs && atMs < toMs;

/** What settles a job: when, by whom, and what is not right with it. */
interface Settled {
  atMs: number;
  /** Who settled it. */
  personId: string;
  factId: string | null;
  notRight: NotRight | null;
}

/**
 * The moment from which what happens belongs to the run in hand; null when there is none, or it was signed for.
 * @param grinderId null where a run over other grinders is none of its business
 */
export function openingFromMs(facts: StandingFacts, nowMs: number, grinderId?: string): number | null {
  const morning = morningOf(facts, nowMs);
  if (!morning) return null;
  // A closing asks no grinder to hold.
  if (grinderId !== undefined && morning.run === 'closing') return null;
  if (grinderId !== undefined && morning.grinderIds !== null && !morning.grinderIds.includes(grinderId)) return null;
  const signed = stepsOf(facts, 'signedOff').some(({ at }) => Date.parse(at) >= morning.fromMs);
  return signed ? null : morning.fromMs;
}

/** A grinder that was locked so shortly before a run began is not dialled in again for it. */
const JUST_LOCKED_MS = 30 * MS_PER_MINUTE;

/**
 * From when on a lock counts for the run that began at `fromMs`: from a little before, unless that belonged to a run that
 * was then begun anew, or the bar was closed since: its hoppers were emptied and its chutes brushed.
 */
export function locksFromMs(facts: StandingFacts, fromMs: number): number {
  const last = stepsOf(facts, 'planned')
    .map(({ body: { from, run } }) => ({ atMs: Date.parse(from), run }))
    .filter(({ atMs }) => between(atMs, fromMs - STALE_MS, fromMs))
    .toSorted((a, b) => a.atMs - b.atMs)
    .at(-1);
  if (!last) return fromMs - JUST_LOCKED_MS;
  const signed = stepsOf(facts, 'signedOff').some(({ at }) => between(Date.parse(at), last.atMs, fromMs));
  return !signed || last.run === 'closing' ? fromMs : fromMs - JUST_LOCKED_MS;
}

/** Where every job of the opening stands, from what happened since `fromMs`. */
export function openingState(jobs: readonly Job[], facts: StandingFacts, fromMs: number): JobState[] {
  const since = factsSince(facts, fromMs);
  const steps = stepsOf(since);
  const locks = factsSince(facts, locksFromMs(facts, fromMs));
  const found = jobs.map((job) => ({
    job,
    settled: job.kind === 'dial' ? dialled(job, locks) : settledBy(job, since, steps),
    claim: claimOf(job, steps),
  }));
  const over = new Set<string>();
  for (const { job, settled, claim } of found) if (isOver(settled) || skippedAfter(claim, settled)) over.add(job.key);
  return found.map(({ job, settled, claim }): JobState => {
    const skipped = skippedAfter(claim, settled) ? claim.skipped : null;
    const done = isOver(settled) && !skipped ? settled : null;
    const began = claim.begun && claim.begun.atMs > (settled?.atMs ?? -Infinity) ? claim.begun : null;
    const open = job.needs.every((need) => over.has(need));
    return {
      job,
      standing: skipped ? 'skipped' : done ? 'done' : began ? 'underWay' : open ? 'ready' : 'waiting',
      atMs: skipped?.atMs ?? done?.atMs ?? null,
      beganAtMs: claim.begun?.atMs ?? null,
      personId: skipped?.personId ?? done?.personId ?? began?.personId ?? null,
      factId: skipped?.id ?? settled?.factId ?? null,
      skippedWhy: skipped?.why ?? null,
      notRight: settled?.notRight ?? null,
    };
  });
}

/** These are known to be wrong and still not over: a machine without water is not switched on. */
const BLOCKING: ReadonlySet<NotRight> = new Set([
  'noWater',
  'scaleOff',
  'dosesScatter',
  'groupOff',
  'grinderOff',
  'unsure',
]);

const isOver = (settled: Settled | null): boolean =>
  settled !== null && (settled.notRight === null || !BLOCKING.has(settled.notRight));

interface Claim {
  begun: { atMs: number; personId: string } | null;
  skipped: { atMs: number; personId: string; id: string; why: string } | null;
}

/** Whether it was left out after it was last found done or wrong. */
const skippedAfter = (claim: Claim, settled: Settled | null): claim is Claim & { skipped: object } =>
  claim.skipped !== null && (settled === null || !isOver(settled) || claim.skipped.atMs > settled.atMs);

function claimOf(job: Job, steps: readonly StepFact[]): Claim {
  const claim: Claim = { begun: null, skipped: null };
  for (const { id, at, personId, body } of steps) {
    const atMs = Date.parse(at);
    if (body.step === 'begun' && isOf(body, job)) claim.begun = { atMs, personId };
    if (body.step === 'skipped' && isOf(body, job)) claim.skipped = { atMs, personId, id, why: body.why };
  }
  return claim;
}

const isOf = (body: { job: JobKind; stationId: string | null }, job: Job): boolean =>
  jobKey(body.job, body.stationId) === job.key;

/** The job that a step settles, rightly or not; null where it settles none. */
export function settles(body: StepFact['body']): { key: string; kind: JobKind } | null {
  const rule = settlements[body.step] as { job: JobKind; station: (body: object) => string | null } | undefined;
  return rule ? { key: jobKey(rule.job, rule.station(body)), kind: rule.job } : null;
}

function settledBy(job: Job, facts: StandingFacts, steps: readonly StepFact[]): Settled | null {
  const bySteps = steps.flatMap((step): Settled[] => {
    const rule = settlements[step.body.step] as
      { job: JobKind; station: (body: object) => string | null; says: (body: object) => NotRight | null } | undefined;
    if (!rule || jobKey(rule.job, rule.station(step.body)) !== job.key) return [];
    return [{ atMs: Date.parse(step.at), personId: step.personId, factId: step.id, notRight: rule.says(step.body) }];
  });
  const byBag =
    job.kind === 'hopper' ? ofKind(facts, 'newBag').filter(({ grinderId }) => grinderId === job.stationId) : [];
  return (
    [
      ...bySteps,
      ...byBag.map((bag) => ({ atMs: Date.parse(bag.at), personId: bag.personId, factId: null, notRight: null })),
    ]
      .toSorted((a, b) => a.atMs - b.atMs)
      .at(-1) ?? null
  );
}

/** A grinder is dialled in by its lock, as long as nobody has touched it or its hopper since. */
function dialled(job: Job, facts: StandingFacts): Settled | null {
  const own = ofGrinder(facts, job.stationId ?? '');
  const lock = lastLock(own);
  if (!lock || touchedSinceLock(own) || newBagWaitsSinceMs(own) !== null) return null;
  // Another aim is another cup: it is not dialled in until a shot has confirmed it.
  if (aimChange(facts, job.stationId ?? '') !== null) return null;
  return { atMs: Date.parse(lock.at), personId: lock.personId, factId: null, notRight: null };
}
