import { MINUTES_PER_HOUR, MS_PER_DAY } from '@tempera/core/numbers';
import { businessDay, shown, type Units } from '@tempera/core/house';
import { dialWord } from '@tempera/contract/adviceWords';
import type { Session } from '@tempera/contract/team';
import { unitsNow, written } from './units.ts';

/** How numbers and moments are written everywhere. */

export const grams = (g: number, units?: Units): string => written('mass', g, 1, units);
export const millilitres = (ml: number, units?: Units): string => written('volume', ml, 0, units);
export const degrees = (c: number, digits = 1, units?: Units): string => written('temperature', c, digits, units);
export const bars = (bar: number): string => written('pressure', bar, 1);
/** Stocks and bags: kilograms, or pounds for who reads ounces; a handful in grams or ounces. */
export const kilograms = (g: number): string => {
  const OZ_PER_LB = 16;
  const HANDFUL_G = 100;
  const units = unitsNow();
  if (g < HANDFUL_G) return units.mass === 'g' ? `${Math.round(g)} g` : grams(g);
  return units.mass === 'g'
    ? `${(g / 1_000).toFixed(g < 10_000 ? 1 : 0)} kg`
    : `${(shown('mass', g, units) / OZ_PER_LB).toFixed(1)} lb`;
};
export const seconds = (s: number): string => `${s.toFixed(1)} s`;
export { dialWord as dialNumber, percentWord as percent } from '@tempera/contract/adviceWords';
export const marks = (count: number): string => `${dialWord(count)} ${count === 1 ? 'mark' : 'marks'}`;
export const ratio = (yieldG: number, doseG: number): string => `1 : ${(yieldG / doseG).toFixed(2)}`;
interface Cup {
  doseG: number;
  yieldG: number;
  timeMinS: number;
  timeMaxS: number;
}

/** What a cup is made of: "18.0 g in, 36.0 g out, 25–30 s". */
export const cupWord = ({ doseG, yieldG, timeMinS, timeMaxS }: Cup, units?: Units): string =>
  `${grams(doseG, units)} in, ${grams(yieldG, units)} out, ${timeMinS}–${timeMaxS} s`;
export const money = (amount: number, currency: string): string =>
  new Intl.NumberFormat('en-GB', { style: 'currency', currency }).format(amount);

const formats = new Map<string, Intl.DateTimeFormat>();

/** Making a format costs a hundred times what using it does, and a list of jobs uses three a line. */
function formatOf(timeZone: string, options: Intl.DateTimeFormatOptions): Intl.DateTimeFormat {
  const key = `${timeZone} ${Object.entries(options).join(' ')}`;
  const known = formats.get(key);
  if (known) return known;
  const made = new Intl.DateTimeFormat('en-GB', { timeZone, ...options });
  formats.set(key, made);
  return made;
}

const dayKey = (ms: number, timeZone: string): string => businessDay(ms, timeZone, 0);

/** The café's clock: "06:42". */
export const clock = (ms: number, timeZone: string): string =>
  formatOf(timeZone, { hour: '2-digit', minute: '2-digit' }).format(ms);

const WEEK_DAYS = 6;

/** A moment as a barista says it, by the café's clock: "today 06:42", "yesterday 06:48", "Thu 06:40", "3 Mar 06:40". */
export function moment(ms: number, timeZone: string, nowMs: number): string {
  const time = clock(ms, timeZone);
  const day = dayKey(ms, timeZone);
  if (day === dayKey(nowMs, timeZone)) return `today ${time}`;
  if (day === dayKey(nowMs - MS_PER_DAY, timeZone)) return `yesterday ${time}`;
  const within = nowMs - ms < WEEK_DAYS * MS_PER_DAY;
  const format: Intl.DateTimeFormatOptions = within ? { weekday: 'short' } : { day: 'numeric', month: 'short' };
  return `${formatOf(timeZone, format).format(ms)} ${time}`;
}

/** A moment ahead by the café's clock and its business day: "07:30" while it is of this one, "Sat 07:30" of a later one. */
export function clockAhead(ms: number, { timeZone, dayStartsMin }: Session['site'], nowMs: number): string {
  const ofToday = businessDay(ms, timeZone, dayStartsMin) === businessDay(nowMs, timeZone, dayStartsMin);
  return ofToday
    ? clock(ms, timeZone)
    : `${formatOf(timeZone, { weekday: 'short' }).format(ms)} ${clock(ms, timeZone)}`;
}

/** A calendar day, YYYY-MM-DD, as a barista says it: "Thu 20 Nov". */
export const dayWord = (day: string): string =>
  formatOf('UTC', { weekday: 'short', day: 'numeric', month: 'short' }).format(Date.parse(`${day}T00:00:00Z`));

/** Minutes after midnight as a clock shows them: "07:30". */
export const clockOf = (minutes: number): string =>
  `${String(Math.floor(minutes / MINUTES_PER_HOUR)).padStart(2, '0')}:${String(minutes % MINUTES_PER_HOUR).padStart(2, '0')}`;

/** A calendar day, YYYY-MM-DD, that may be years away: "20 Nov 2026". */
export const dateWord = (day: string): string =>
  formatOf('UTC', { day: 'numeric', month: 'short', year: 'numeric' }).format(Date.parse(`${day}T00:00:00Z`));

/** "dialling in, milk and the grinder Brew". */
export const inWords = (words: readonly string[]): string => new Intl.ListFormat('en-GB').format(words);
