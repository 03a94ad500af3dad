import type { JobKind } from '../facts/index.ts';
import { jobFacts, type Minutes } from './jobs.ts';

/** Weigh, prepare, pull half a minute, read, turn and purge. */
const SHOT: Minutes = { meanMin: 2, sdMin: 0.5 };
/** Rinsing twice and throwing a shot away takes longer. */
const DETERGENT_MIN = 2;
/** A group is judged by its first shot in most mornings. */
const CHECK_SHOTS: Shots = { mean: 1.3, sd: 0.6 };
/** Shots to dial a grinder in when the engine has nothing to say. */
const UNKNOWN_SHOTS: Shots = { mean: 3, sd: 1.3 };

/** How many shots the engine expects a grinder to take. */
export interface Shots {
  mean: number;
  sd: number;
}

/** What earlier mornings took, minutes, by kind of job; `shot` is one round at the bench. */
export type History = Partial<Record<JobKind | 'shot', readonly number[]>>;

/** The usual minutes count as much as this many mornings of the house's own. */
const USUAL_WEIGHT = 3;
/** Longer than this and somebody went to fetch milk in between. */
const LONGEST_MIN = 45;

/** What the house's own mornings make of a usual duration: a mean that leans on them the more there are. */
export function learnedMinutes(before: Minutes, minutes: readonly number[]): Minutes {
  const own = minutes.filter((took) => took > 0 && took < LONGEST_MIN);
  const weight = USUAL_WEIGHT + own.length;
  const meanMin = (USUAL_WEIGHT * before.meanMin + own.reduce((sum, took) => sum + took, 0)) / weight;
  const squares = own.reduce((sum, took) => sum + (took - meanMin) ** 2, 0);
  return { meanMin, sdMin: Math.sqrt((USUAL_WEIGHT * before.sdMin ** 2 + squares) / weight) };
}

/** Shots one after another: the sum of a number of rounds that is itself uncertain. */
function rounds(round: Minutes, shots: Shots): Minutes {
  return {
    meanMin: round.meanMin * shots.mean,
    sdMin: Math.sqrt(shots.mean * round.sdMin ** 2 + (round.meanMin * shots.sd) ** 2),
  };
}

/**
 * How long a job takes.
 * @param shots that the engine expects of the grinder to be dialled in; null where it says nothing
 */
export function minutesOf(kind: JobKind, history: History, shots: Shots | null, detergent: boolean): Minutes {
  const round = learnedMinutes(SHOT, history.shot ?? []);
  if (kind === 'dial') return rounds(round, shots ?? UNKNOWN_SHOTS);
  if (kind === 'groupCheck') return rounds(round, CHECK_SHOTS);
  const learned = learnedMinutes(jobFacts[kind].usual ?? SHOT, history[kind] ?? []);
  return kind === 'rinse' && detergent ? { ...learned, meanMin: learned.meanMin + DETERGENT_MIN } : learned;
}
