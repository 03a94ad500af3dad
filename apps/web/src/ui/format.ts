import { MINUTES_PER_HOUR, MS_PER_DAY } from '@tempera/core/numbers';
import { digitsFor, kept, sayIn, shown, usualUnits, type Dimension, type Units } from '@tempera/core/house';

/** How numbers and moments are written everywhere. */

let units: Units = usualUnits;

/**
 * From now on numbers are written as this person reads them. Called when the session is known, before anything is drawn;
 * the frame draws everything anew when it changes.
 */
export function speakIn(wanted: Units): void {
  units = wanted;
}

/** The units that numbers are written in now. */
export const unitsNow = (): Units => units;

/** "18.0 g", "0.635 oz": a kept quantity as this person reads it. `digits` are those of the kept unit. */
export const written = (dimension: Dimension, value: number, digits: number): string =>
  `${shown(dimension, value, units).toFixed(digitsFor(dimension, digits, units))} ${units[dimension]}`;
/** The number alone, as a field shows it: no trailing zeros. */
export const bare = (dimension: Dimension, value: number, digits: number): string =>
  String(Number(shown(dimension, value, units).toFixed(digitsFor(dimension, digits, units))));
/** What was typed in this person's unit, as it is kept. */
export const unbare = (dimension: Dimension, typed: number): number => kept(dimension, typed, units);
const dimensions: Record<string, Dimension> = { g: 'mass', ml: 'volume', '°C': 'temperature', bar: 'pressure' };
/** What a kept unit measures, where people differ in how they read it; null for the rest. */
export const dimensionOf = (unit: string): Dimension | null => dimensions[unit] ?? null;

/** The unit that this person reads where `unit` is kept. */
export function unitShown(unit: string): string {
  const dimension = dimensionOf(unit);
  return dimension === null ? unit : units[dimension];
}

/** A kept number, or a part of a window, as this person reads it. */
export function numberShown(unit: string, value: number): number {
  const dimension = dimensionOf(unit);
  return dimension === null ? value : shown(dimension, value, units);
}

/** Digits that say as much to this person as `digits` of the kept unit. */
export function digitsShown(unit: string, digits: number): number {
  const dimension = dimensionOf(unit);
  return dimension === null ? digits : digitsFor(dimension, digits, units);
}

/** A sentence of the engine or of the contract, in this person's units. */
export const said = (sentence: string): string => sayIn(units, sentence);

export const grams = (g: number): string => written('mass', g, 1);
export const millilitres = (ml: number): string => written('volume', ml, 0);
export const degrees = (c: number, digits = 1): string => written('temperature', c, digits);
export const bars = (bar: number): string => written('pressure', bar, 1);
/** Stocks and bags: kilograms, or pounds for who reads ounces. */
export const kilograms = (g: number): string => {
  const OZ_PER_LB = 16;
  return units.mass === 'g'
    ? `${(g / 1_000).toFixed(g < 10_000 ? 1 : 0)} kg`
    : `${(shown('mass', g, units) / OZ_PER_LB).toFixed(1)} lb`;
};
export const seconds = (s: number): string => `${s.toFixed(1)} s`;
/** A chance in whole percent; never "0 %" or "100 %", which nobody can know. */
export const percent = (share: number): string =>
  share < 0.005 ? 'under 1 %' : share > 0.995 ? 'over 99 %' : `${Math.round(share * 100)} %`;
/** A dial number without trailing zeros. */
export const dialNumber = (setting: number): string => String(Math.round(setting * 1000) / 1000);
export const marks = (count: number): string => `${dialNumber(count)} ${count === 1 ? 'mark' : 'marks'}`;
export const ratio = (yieldG: number, doseG: number): string => `1 : ${(yieldG / doseG).toFixed(2)}`;
export const money = (amount: number, currency: string): string =>
  new Intl.NumberFormat('en-GB', { style: 'currency', currency }).format(amount);

const dayKey = (ms: number, timeZone: string): string =>
  new Intl.DateTimeFormat('en-CA', { timeZone, year: 'numeric', month: '2-digit', day: '2-digit' }).format(ms);

/** The café's clock: "06:42". */
export const clock = (ms: number, timeZone: string): string =>
  new Intl.DateTimeFormat('en-GB', { timeZone, hour: '2-digit', minute: '2-digit' }).format(ms);

const WEEK_DAYS = 6;

/** A moment as a barista says it, by the café's clock: "today 06:42", "yesterday 06:48", "Thu 06:40", "3 Mar 06:40". */
export function moment(ms: number, timeZone: string, nowMs: number): string {
  const time = clock(ms, timeZone);
  const day = dayKey(ms, timeZone);
  if (day === dayKey(nowMs, timeZone)) return `today ${time}`;
  if (day === dayKey(nowMs - MS_PER_DAY, timeZone)) return `yesterday ${time}`;
  const within = nowMs - ms < WEEK_DAYS * MS_PER_DAY;
  const format: Intl.DateTimeFormatOptions = within ? { weekday: 'short' } : { day: 'numeric', month: 'short' };
  return `${new Intl.DateTimeFormat('en-GB', { timeZone, ...format }).format(ms)} ${time}`;
}

/** A calendar day, YYYY-MM-DD, as a barista says it: "Thu 20 Nov". */
export const dayWord = (day: string): string =>
  new Intl.DateTimeFormat('en-GB', { timeZone: 'UTC', weekday: 'short', day: 'numeric', month: 'short' }).format(
    Date.parse(`${day}T00:00:00Z`),
  );

/** Minutes after midnight as a clock shows them: "07:30". */
export const clockOf = (minutes: number): string =>
  `${String(Math.floor(minutes / MINUTES_PER_HOUR)).padStart(2, '0')}:${String(minutes % MINUTES_PER_HOUR).padStart(2, '0')}`;
