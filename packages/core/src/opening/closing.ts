import {
  factsSince,
  factsWhere,
  stepsOf,
  type JobKind,
  type StandingFacts,
  type StepFact,
  type StepOf,
} from '../facts/index.ts';
import { jobKey } from './jobs.ts';
import { settles } from './openingState.ts';

/** A job of the closing that the next opening begins with. */
export interface LeftJob {
  job: JobKind;
  stationId: string | null;
  why: string;
}

/** How the bar was left when it was closed last. */
export interface Closed {
  /** When its run began. */
  fromMs: number;
  /** When it was signed for; null: nobody did. */
  signedAtMs: number | null;
  /** Groups that were back-flushed with detergent. */
  detergentGroupIds: string[];
  /** Left out, and why. */
  left: LeftJob[];
  /** What the next day begins with; null: nobody said. */
  tomorrow: StepOf<'tomorrow'> | null;
}

/** Left out at closing, these are done before anything that needs them: the rest is over with the day. */
const ASKED_AGAIN: ReadonlySet<JobKind> = new Set<JobKind>(['backFlush', 'brushChute', 'wand', 'trays', 'soak']);

/** What was left out and not done after all. */
function leftOut(facts: StandingFacts): StepFact<StepOf<'skipped'>>[] {
  const last = new Map<string, StepFact<StepOf<'skipped'>> | null>();
  for (const step of stepsOf(facts)) {
    const done = settles(step.body);
    if (done) last.set(done.key, null);
    const { body } = step;
    if (body.step === 'skipped' && ASKED_AGAIN.has(body.job))
      last.set(jobKey(body.job, body.stationId), { ...step, body });
  }
  return [...last.values()].filter((step) => step !== null);
}

/** The newest step that began another run than a closing, or null. */
const begins = (facts: StandingFacts, isClosing: boolean): StepFact<StepOf<'planned'>> | undefined =>
  stepsOf(facts, 'planned').findLast(({ body }) => (body.run === 'closing') === isClosing);

/**
 * How the bar was left by its last closing, as far as no opening has begun since; null where none was planned.
 * @param beforeMs what began at this moment or later does not count: an opening asks how it was left before it
 */
export function closedBefore(facts: StandingFacts, beforeMs: number): Closed | null {
  const before = factsWhere(facts, ({ at }) => Date.parse(at) < beforeMs);
  const planned = begins(before, true);
  if (!planned) return null;
  const fromMs = Date.parse(planned.body.from);
  const other = begins(before, false);
  if (other && Date.parse(other.body.from) > fromMs) return null;
  const since = factsSince(before, fromMs);
  const signed = stepsOf(since, 'signedOff').at(-1);
  const flushed = stepsOf(since, 'backFlushed');
  return {
    fromMs,
    signedAtMs: signed ? Date.parse(signed.at) : null,
    detergentGroupIds: [...new Set(flushed.filter(({ body }) => body.detergent).map(({ body }) => body.groupId))],
    left: leftOut(since).map(({ body: { job, stationId, why } }) => ({ job, stationId, why })),
    tomorrow: stepsOf(since, 'tomorrow').at(-1)?.body ?? null,
  };
}

/** The closing after which nothing was pulled, locked or begun: the bar is closed. Null while it serves, or where nobody signed. */
export function closedNow(facts: StandingFacts, nowMs: number): Closed | null {
  const closed = closedBefore(facts, nowMs);
  if (closed?.signedAtMs == null) return null;
  const works = factsSince(facts, closed.signedAtMs).some(({ kind }) => kind === 'shot' || kind === 'lock');
  return works ? null : closed;
}
