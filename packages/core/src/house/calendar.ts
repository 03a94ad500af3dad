import { MINUTES_PER_DAY, MS_PER_MINUTE } from '../numbers/index.ts';
import { addDays, businessDay, momentOf } from './businessDay.ts';

export const weekdays = ['monday', 'tuesday', 'wednesday', 'thursday', 'friday', 'saturday', 'sunday'] as const;
export type Weekday = (typeof weekdays)[number];

/** Hours of a day by the café's clock, minutes after midnight; past midnight where it closes no later than it opens. */
export interface DayHours {
  opensMin: number;
  closesMin: number;
}

/** A weekday that differs from the usual hours. */
interface WeekHours extends DayHours {
  weekday: Weekday;
  closed: boolean;
}

/** A holiday, or days of other hours. */
interface ExceptionHours extends DayHours {
  from: string;
  /** The last day of it; null: that one day. */
  until: string | null;
  closed: boolean;
  why: string;
}

/** Who works from when to when, every week. */
export interface Shift {
  name: string;
  /** Null: every day that the house is open. */
  weekday: Weekday | null;
  fromMin: number;
  toMin: number;
  /** Null: whoever is in. */
  personId: string | null;
}

/** When the house is open and who is in, by its own clock. */
export interface Calendar extends DayHours {
  timeZone: string;
  /** When the business day begins, minutes after midnight; past noon: on the evening before its hours. */
  dayStartsMin: number;
  week: readonly WeekHours[];
  exceptions: readonly ExceptionHours[];
  shifts: readonly Shift[];
}

/** A day on which the house is open, ms since the epoch. */
export interface OpenSpan {
  day: string;
  opensMs: number;
  closesMs: number;
}

const DAYS_A_WEEK = 7;
/** 1970-01-01 was a Thursday. */
const FIRST_WEEKDAY = 3;

/** The weekday of a calendar day, YYYY-MM-DD. */
export function weekdayOf(day: string): Weekday {
  const days = Math.round(Date.parse(`${day}T00:00:00Z`) / (MINUTES_PER_DAY * MS_PER_MINUTE));
  return weekdays[(((days + FIRST_WEEKDAY) % DAYS_A_WEEK) + DAYS_A_WEEK) % DAYS_A_WEEK] ?? 'monday';
}

/** Hours of a day: an exception before the week's own, that before the usual. Null: the house is closed. */
export function hoursOn(calendar: Calendar, day: string): DayHours | null {
  const { week, exceptions } = calendar;
  const special =
    exceptions.findLast(({ from, until }) => day >= from && day <= (until ?? from)) ??
    week.find(({ weekday }) => weekday === weekdayOf(day));
  if (special?.closed) return null;
  const { opensMin, closesMin } = special ?? calendar;
  return { opensMin, closesMin };
}

const NOON_MIN = 720;

/** From one hour to another of a business day, where the later one may lie past midnight; ms since the epoch. */
function spanOn({ timeZone, dayStartsMin }: Calendar, day: string, fromMin: number, toMin: number) {
  const beganTheEveningBefore = dayStartsMin > NOON_MIN && fromMin < dayStartsMin;
  const date = beganTheEveningBefore ? addDays(day, 1) : day;
  return {
    fromMs: momentOf(date, fromMin, timeZone),
    toMs: momentOf(toMin > fromMin ? date : addDays(date, 1), toMin, timeZone),
  };
}

/** From when to when the house is open on a business day; null: it is closed. */
export function openSpan(calendar: Calendar, day: string): OpenSpan | null {
  const hours = hoursOn(calendar, day);
  if (!hours) return null;
  const { fromMs, toMs } = spanOn(calendar, day, hours.opensMin, hours.closesMin);
  return { day, opensMs: fromMs, closesMs: toMs };
}

/** A house that is closed for longer has no next day to prepare for. */
const LONGEST_CLOSED_DAYS = 60;

/** The first day on which the house opens after a moment; null where its calendar names none for two months. */
export function nextOpening(calendar: Calendar, afterMs: number): OpenSpan | null {
  const from = businessDay(afterMs, calendar.timeZone, calendar.dayStartsMin);
  for (let i = 0; i <= LONGEST_CLOSED_DAYS; i += 1) {
    const span = openSpan(calendar, addDays(from, i));
    if (span && span.opensMs > afterMs) return span;
  }
  return null;
}

/** A shift on one day, ms since the epoch. */
export interface ShiftOn extends Shift {
  fromMs: number;
  toMs: number;
}

/** Shifts of a day, in the order in which they begin; none while the house is closed. */
export function shiftsOn(calendar: Calendar, day: string): ShiftOn[] {
  if (!hoursOn(calendar, day)) return [];
  return calendar.shifts
    .filter(({ weekday }) => weekday === null || weekday === weekdayOf(day))
    .map((shift) => ({ ...shift, ...spanOn(calendar, day, shift.fromMin, shift.toMin) }))
    .toSorted((a, b) => a.fromMs - b.fromMs || a.toMs - b.toMs);
}

/** A hand-over is offered from so long before a shift ends until so long after. */
const OFFERED_BEFORE_MS = 20 * MS_PER_MINUTE;
const OFFERED_AFTER_MS = 60 * MS_PER_MINUTE;

/**
 * The shift that ends about now, with another going on after it; null where none does. The last one of the day hands over to
 * nobody: it closes.
 */
export function shiftEnding(calendar: Calendar, nowMs: number): ShiftOn | null {
  const today = businessDay(nowMs, calendar.timeZone, calendar.dayStartsMin);
  const shifts = [addDays(today, -1), today].flatMap((day) => shiftsOn(calendar, day));
  const ends = shifts.findLast(
    ({ fromMs, toMs }) => nowMs >= toMs - OFFERED_BEFORE_MS && nowMs <= toMs + OFFERED_AFTER_MS && fromMs < nowMs,
  );
  return ends && shifts.some(({ fromMs, toMs }) => fromMs <= ends.toMs && toMs > ends.toMs) ? ends : null;
}

/** Who opens a day by its calendar: whoever's shift begins first. Null where nobody is named. */
export function openerOf(calendar: Calendar, day: string): string | null {
  return shiftsOn(calendar, day).find(({ personId }) => personId !== null)?.personId ?? null;
}
