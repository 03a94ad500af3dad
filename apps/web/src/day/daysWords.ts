import type { DayTold } from '@tempera/contract/day';
import { windowMiddleS } from '@tempera/core/calibration';
import { grams, seconds } from '../kernel/format.ts';

/** The window that all the days are drawn against: the newest; null where no shot was pulled. */
export const sharedWindow = (days: readonly DayTold[]): DayTold['windowS'] =>
  days.findLast(({ windowS }) => windowS !== null)?.windowS ?? null;

/** A day's mean and one sd about it, s, as far from the middle as they were from their own day's; null without a shot. */
export function timesOf(
  { meanLn, sdLn }: DayTold,
  days: readonly DayTold[],
): { meanS: number; lowS: number; highS: number } | null {
  const windowS = sharedWindow(days);
  if (meanLn === null || windowS === null) return null;
  const at = (ln: number): number => windowMiddleS(windowS) * Math.exp(ln);
  return { meanS: at(meanLn), lowS: at(meanLn - (sdLn ?? 0)), highS: at(meanLn + (sdLn ?? 0)) };
}

/** "26.4 ± 1.2 s", one sd: a day of a single shot has no spread. */
export function dayTimesWord(day: DayTold, days: readonly DayTold[]): string {
  const times = timesOf(day, days);
  if (!times) return '–';
  if (day.sdLn === null) return seconds(times.meanS);
  return `${times.meanS.toFixed(1)} ± ${seconds((times.highS - times.lowS) / 2)}`;
}

/** "14 of 15": of timed shots; of a day on which none was timed nothing is claimed. */
export const dayInsideWord = ({ inside, timed }: DayTold): string => (timed === 0 ? '–' : `${inside} of ${timed}`);

/** "2 moves, a bag": what changed on a day. */
export function dayChangesWord({ moves, bags }: DayTold): string {
  const said = [
    moves > 0 && (moves === 1 ? 'a move' : `${moves} moves`),
    bags > 0 && (bags === 1 ? 'a bag' : `${bags} bags`),
  ].filter(Boolean);
  return said.length === 0 ? '–' : said.join(', ');
}

/** "38 of 40 doses on the scale were inside; on average 0.1 g over." */
export function dosesWord(inside: number, of: number, offG: number): string {
  const off =
    Math.abs(offG) < SHOWN_G
      ? 'on average as asked'
      : `on average ${grams(Math.abs(offG))} ${offG > 0 ? 'over' : 'under'}`;
  return `${inside} of ${of} ${of === 1 ? 'dose' : 'doses'} on the scale ${of === 1 ? 'was' : 'were'} inside; ${off}.`;
}
/** Less than this is shown as nought. */
const SHOWN_G = 0.05;

/** The doses of one day; a day on which none was weighed says so. */
export const dayDosesWord = ({ doses, dosesInside }: DayTold): string =>
  doses === 0 ? '–' : `${dosesInside} of ${doses}`;
