import { windowMiddleS } from '../calibration/index.ts';
import { mean, standardDeviation } from '../numbers/index.ts';
import type { GrinderHistory } from './grinderHistory.ts';

/** What days are made by: counted up whenever the same facts give another summary. */
export const SUMMARY_VERSION = 1;

/** A business day of a grinder in numbers: years are read as days, not as shots. */
export interface DaySummary {
  /** YYYY-MM-DD. */
  day: string;
  /** Sound shots, and how many of them were customers' own, timed in service; of those, how many were inside. */
  shots: number;
  timed: number;
  inside: number;
  /**
   * Mean and sd of the natural log of each shot's time over the middle of its window: of the timed ones, or where none was timed of
   * all of them. The sd is null of a single shot, both are null of none.
   */
  meanLn: number | null;
  sdLn: number | null;
  /** The window of its last shot, s; null without one. */
  windowS: { min: number; max: number } | null;
  moves: number;
  bags: number;
  /** Doses on the scale, how many were inside, and by how much they were off on average, g; null of none. */
  doses: number;
  dosesInside: number;
  doseOffG: number | null;
}

/**
 * The days of a grinder in numbers, oldest first; a day without any of it is left out.
 * @param dayOf the business day of a moment
 */
export function summariseDays(history: GrinderHistory, dayOf: (atMs: number) => string): DaySummary[] {
  const { shots, doses } = history;
  const marks = history.marks
    .filter(({ what }) => what === 'move' || what === 'bag')
    .map((mark) => ({ ...mark, day: dayOf(mark.atMs) }));
  const days = [...new Set([...shots, ...doses, ...marks].map(({ day }) => day))].toSorted();
  const of = <T extends { day: string }>(all: readonly T[], day: string): T[] => all.filter((one) => one.day === day);
  return days.map((day) => summaryOf(day, of(shots, day), of(doses, day), of(marks, day)));
}

function summaryOf(
  day: string,
  shots: GrinderHistory['shots'],
  doses: GrinderHistory['doses'],
  marks: readonly Pick<GrinderHistory['marks'][number], 'what'>[],
): DaySummary {
  const timed = shots.filter(({ service }) => service);
  const told = timed.length > 0 ? timed : shots;
  const lns = told.map(({ timeS, lowS, highS }) => Math.log(timeS / windowMiddleS({ min: lowS, max: highS })));
  const last = shots.at(-1);
  return {
    day,
    shots: shots.length,
    timed: timed.length,
    inside: timed.filter(({ inside }) => inside).length,
    meanLn: lns.length > 0 ? mean(lns) : null,
    sdLn: lns.length > 1 ? standardDeviation(lns) : null,
    windowS: last ? { min: last.lowS, max: last.highS } : null,
    moves: marks.filter(({ what }) => what === 'move').length,
    bags: marks.filter(({ what }) => what === 'bag').length,
    doses: doses.length,
    dosesInside: doses.filter(({ inside }) => inside).length,
    doseOffG: doses.length > 0 ? mean(doses.map(({ doseG, aimG }) => doseG - aimG)) : null,
  };
}
