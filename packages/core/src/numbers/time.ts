/** Units of time, for moments in ms since the epoch and for spans in minutes and hours. */
export const MS_PER_SECOND = 1_000;
export const MS_PER_MINUTE = 60 * MS_PER_SECOND;
export const MS_PER_HOUR = 60 * MS_PER_MINUTE;
export const MS_PER_DAY = 24 * MS_PER_HOUR;
export const MS_PER_WEEK = 7 * MS_PER_DAY;
export const MINUTES_PER_HOUR = 60;
export const MINUTES_PER_DAY = 24 * MINUTES_PER_HOUR;
export const HOURS_PER_DAY = 24;

/** Hours from one moment to another, ms since the epoch; 0 where the other is earlier. */
export const hoursBetween = (fromMs: number, toMs: number): number => Math.max(0, toMs - fromMs) / MS_PER_HOUR;
