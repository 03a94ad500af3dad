import { MS_PER_DAY, MS_PER_MINUTE } from '../numbers/index.ts';

const formats = new Map<string, Intl.DateTimeFormat>();

function formatFor(timeZone: string): Intl.DateTimeFormat {
  const known = formats.get(timeZone);
  if (known) return known;
  // As the pages are written: a browser loads the patterns of each English it meets, on a tablet a tenth of a second long.
  const made = new Intl.DateTimeFormat('en-GB', {
    timeZone,
    hourCycle: 'h23',
    year: 'numeric',
    month: '2-digit',
    day: '2-digit',
    hour: '2-digit',
    minute: '2-digit',
  });
  formats.set(timeZone, made);
  return made;
}

/** The café's wall clock at a moment: the calendar day, and minutes since its midnight. */
function wallClock(atMs: number, timeZone: string): { day: string; minutes: number } {
  const parts = Object.fromEntries(
    formatFor(timeZone)
      .formatToParts(atMs)
      .map(({ type, value }) => [type, value]),
  );
  return {
    day: `${parts.year}-${parts.month}-${parts.day}`,
    minutes: Number(parts.hour) * 60 + Number(parts.minute),
  };
}

/**
 * The business day that a moment belongs to, YYYY-MM-DD by the café's own clock: a bar that closes at one in the
 * morning still counts that hour to the evening before, and one east of Greenwich opens before midnight UTC.
 * @param dayStartsMin when the business day begins, minutes after local midnight
 */
export function businessDay(atMs: number, timeZone: string, dayStartsMin: number): string {
  const { day, minutes } = wallClock(atMs, timeZone);
  return minutes >= dayStartsMin ? day : addDays(day, -1);
}

/** The calendar day `days` later, YYYY-MM-DD; no time zone plays a part. */
export function addDays(day: string, days: number): string {
  return new Date(Date.parse(`${day}T00:00:00Z`) + days * MS_PER_DAY).toISOString().slice(0, 10);
}

/** Days from one calendar day to another. */
export function daysBetween(from: string, to: string): number {
  return Math.round((Date.parse(`${to}T00:00:00Z`) - Date.parse(`${from}T00:00:00Z`)) / MS_PER_DAY);
}

/** When a wall-clock time of a calendar day comes, ms since the epoch; a time that the clocks skip comes an hour later. */
export function momentOf(day: string, minutes: number, timeZone: string): number {
  const asUtc = Date.parse(`${day}T00:00:00Z`) + minutes * MS_PER_MINUTE;
  const offsetAt = (atMs: number): number => {
    const clock = wallClock(atMs, timeZone);
    return (
      Date.parse(`${clock.day}T00:00:00Z`) +
      clock.minutes * MS_PER_MINUTE -
      Math.floor(atMs / MS_PER_MINUTE) * MS_PER_MINUTE
    );
  };
  const guess = asUtc - offsetAt(asUtc);
  return asUtc - offsetAt(guess);
}
