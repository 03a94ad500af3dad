/** How numbers and moments are written everywhere. */

export const grams = (g: number): string => `${g.toFixed(1)} g`;
export const seconds = (s: number): string => `${s.toFixed(1)} s`;
/** A chance in whole percent; never "0 %" or "100 %", which nobody can know. */
export const percent = (share: number): string =>
  share < 0.005 ? 'under 1 %' : share > 0.995 ? 'over 99 %' : `${Math.round(share * 100)} %`;
/** A dial number without trailing zeros. */
export const dialNumber = (setting: number): string => String(Math.round(setting * 1000) / 1000);
export const marks = (count: number): string => `${dialNumber(count)} ${count === 1 ? 'mark' : 'marks'}`;
export const ratio = (yieldG: number, doseG: number): string => `1 : ${(yieldG / doseG).toFixed(2)}`;

const dayKey = (ms: number, timeZone: string): string =>
  new Intl.DateTimeFormat('en-CA', { timeZone, year: 'numeric', month: '2-digit', day: '2-digit' }).format(ms);

const clock = (ms: number, timeZone: string): string =>
  new Intl.DateTimeFormat('en-GB', { timeZone, hour: '2-digit', minute: '2-digit' }).format(ms);

const DAY_MS = 86_400_000;
const WEEK_DAYS = 6;

/** A moment as a barista says it, by the café's clock: "today 06:42", "yesterday 06:48", "Thu 06:40", "3 Mar 06:40". */
export function moment(ms: number, timeZone: string, nowMs: number): string {
  const time = clock(ms, timeZone);
  const day = dayKey(ms, timeZone);
  if (day === dayKey(nowMs, timeZone)) return `today ${time}`;
  if (day === dayKey(nowMs - DAY_MS, timeZone)) return `yesterday ${time}`;
  const within = nowMs - ms < WEEK_DAYS * DAY_MS;
  const format: Intl.DateTimeFormatOptions = within ? { weekday: 'short' } : { day: 'numeric', month: 'short' };
  return `${new Intl.DateTimeFormat('en-GB', { timeZone, ...format }).format(ms)} ${time}`;
}
