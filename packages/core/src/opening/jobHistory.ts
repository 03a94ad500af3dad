import { MS_PER_MINUTE } from '../numbers/index.ts';
import { stepsOf, type StandingFacts } from '../facts/index.ts';
import type { History } from './jobMinutes.ts';
import { jobKey } from './jobs.ts';
import { settles } from './openingState.ts';

/** Rounds of one grinder further apart than this are two sessions. */
const SAME_SESSION_MIN = 8;

/** From a moment to another, ms since the epoch. */
export interface RunSpan {
  fromMs: number;
  toMs: number;
}

/** From plan to signature of each run that was signed for, oldest first: what is poured after it is served. */
export function runSpans(facts: StandingFacts): RunSpan[] {
  const spans: RunSpan[] = [];
  let inHand = null as { run: string; fromMs: number } | null;
  for (const { at, body } of stepsOf(facts)) {
    // A run is planned again and again; it begins with its first plan.
    if (body.step === 'planned' && inHand?.run !== body.from) inHand = { run: body.from, fromMs: Date.parse(at) };
    if (body.step !== 'signedOff' || inHand === null) continue;
    spans.push({ fromMs: inHand.fromMs, toMs: Date.parse(at) });
    inHand = null;
  }
  return spans;
}

/**
 * How long jobs took on earlier mornings, minutes: from the moment somebody took one in hand to the moment it was done.
 * @param shots moments of the shots of those mornings by grinder, oldest first: one round at the bench is from shot to shot
 */
export function jobHistory(facts: StandingFacts, shots: ReadonlyMap<string, readonly number[]>): History {
  const history: Record<string, number[]> = {};
  const begun = new Map<string, number>();
  for (const { at, body } of stepsOf(facts)) {
    const atMs = Date.parse(at);
    if (body.step === 'begun') begun.set(jobKey(body.job, body.stationId), atMs);
    const settled = settles(body);
    const sinceMs = settled && begun.get(settled.key);
    if (!settled || sinceMs === undefined || sinceMs === null) continue;
    begun.delete(settled.key);
    (history[settled.kind] ??= []).push((atMs - sinceMs) / MS_PER_MINUTE);
  }
  const rounds = [...shots.values()].flatMap((moments) =>
    moments.slice(1).map((atMs, i) => (atMs - (moments[i] ?? atMs)) / MS_PER_MINUTE),
  );
  return { ...history, shot: rounds.filter((minutes) => minutes > 0 && minutes < SAME_SESSION_MIN) };
}
