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

/** Clocks are set at full quarters of an hour, everywhere. */
const QUARTER_MS = 15 * MS_PER_MINUTE;
/** More than the quarters of the weeks that a page shows, for each of a few zones. */
const MOST_OFFSETS = 20_000;

/** By how much a zone's clocks are ahead of UTC in a quarter of an hour, ms: asking for it takes longer than all that is done with it. */
const offsets = new Map<string, Map<number, number>>();

function offsetMs(atMs: number, timeZone: string): number {
  const quarter = Math.floor(atMs / QUARTER_MS);
  const known = offsets.get(timeZone) ?? new Map<number, number>();
  const before = known.get(quarter);
  if (before !== undefined) return before;
  const fromMs = quarter * QUARTER_MS;
  const part = Object.fromEntries(
    formatFor(timeZone)
      .formatToParts(fromMs)
      .map(({ type, value }) => [type, value]),
  );
  const day = `${part.year?.padStart(4, '0')}-${part.month}-${part.day}`;
  const offset = Date.parse(`${day}T${part.hour}:${part.minute}Z`) - fromMs;
  if (known.size >= MOST_OFFSETS) known.clear();
  offsets.set(timeZone, known.set(quarter, offset));
  return offset;
}

/**
 * The business day that a moment belongs to, YYYY-MM-DD by the café's own clock: a bar that closes at one in the
 * morning still counts that hour to the evening before, and one east of Greenwich opens before midnight UTC.
 * @param dayStartsMin when the business day begins, minutes after local midnight
 */
export function businessDay(atMs: number, timeZone: string, dayStartsMin: number): string {
  return dayNamed(Math.floor((atMs + offsetMs(atMs, timeZone) - dayStartsMin * MS_PER_MINUTE) / MS_PER_DAY));
}

/** More than the days that a page shows. */
const MOST_NAMES = 5_000;
/** Thousands of shots lie on a few days. */
const names = new Map<number, string>();

/** @param day days since the epoch's @returns YYYY-MM-DD */
function dayNamed(day: number): string {
  const known = names.get(day);
  if (known !== undefined) return known;
  if (names.size >= MOST_NAMES) names.clear();
  const name = new Date(day * MS_PER_DAY).toISOString().slice(0, 10);
  names.set(day, name);
  return name;
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
  const guess = asUtc - offsetMs(asUtc, timeZone);
  return asUtc - offsetMs(guess, timeZone);
}
