import { MS_PER_MINUTE } from '../numbers/index.ts';
import { stepsOf, type StandingFacts } from '../facts/index.ts';
import type { History } from './jobMinutes.ts';
import { jobKey } from './jobs.ts';
import { settles } from './openingState.ts';

/** Rounds of one grinder further apart than this are two sessions. */
const SAME_SESSION_MIN = 8;

/**
 * How long jobs took on earlier mornings, minutes: from the moment somebody took one in hand to the moment it was done.
 * @param shots moments of every shot by grinder, oldest first: one round at the bench is from shot to shot
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
    history[settled.kind] = [...(history[settled.kind] ?? []), (atMs - sinceMs) / MS_PER_MINUTE];
  }
  const rounds = [...shots.values()].flatMap((moments) =>
    moments.slice(1).map((atMs, i) => (atMs - (moments[i] ?? atMs)) / MS_PER_MINUTE),
  );
  return { ...history, shot: rounds.filter((minutes) => minutes > 0 && minutes < SAME_SESSION_MIN) };
}
