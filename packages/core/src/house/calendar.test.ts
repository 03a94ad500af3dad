import { describe, expect, it } from 'vitest';
import {
  businessDay,
  hoursOn,
  nextOpening,
  openerOf,
  openSpan,
  shiftEnding,
  shiftsOn,
  weekdayOf,
  type Calendar,
} from './index.ts';

const usual: Calendar = {
  timeZone: 'Europe/Lisbon',
  dayStartsMin: 240,
  opensMin: 450,
  closesMin: 1080,
  week: [
    { weekday: 'sunday', closed: false, opensMin: 540, closesMin: 960 },
    { weekday: 'monday', closed: true, opensMin: 0, closesMin: 0 },
    { weekday: 'friday', closed: false, opensMin: 450, closesMin: 60 },
  ],
  exceptions: [
    { from: '2026-12-24', until: '2026-12-26', closed: true, opensMin: 0, closesMin: 0, why: 'Holidays' },
    { from: '2026-11-30', until: null, closed: false, opensMin: 600, closesMin: 900, why: 'A market' },
  ],
  shifts: [
    { name: 'Early', weekday: null, fromMin: 390, toMin: 780, personId: 'ines' },
    { name: 'Late', weekday: null, fromMin: 750, toMin: 1110, personId: 'tobin' },
    { name: 'Night', weekday: 'friday', fromMin: 1080, toMin: 90, personId: null },
  ],
};

describe('the calendar of a house', () => {
  it('counts the hours of a day that begins in the evening to the next date', () => {
    // Whoever begins the day at eleven and opens at half past one does so on the date after.
    const night: Calendar = { ...usual, dayStartsMin: 23 * 60, opensMin: 90, closesMin: 720, week: [], exceptions: [] };
    const span = openSpan(night, '2026-11-25');
    expect(new Date(span?.opensMs ?? 0).toISOString()).toBe('2026-11-26T01:30:00.000Z');
    expect(new Date(span?.closesMs ?? 0).toISOString()).toBe('2026-11-26T12:00:00.000Z');
    expect(businessDay(span?.opensMs ?? 0, night.timeZone, night.dayStartsMin)).toBe('2026-11-25');
    expect(nextOpening(night, (span?.opensMs ?? 0) - 1)).toEqual(span);
    // One that begins at six, where the doors open at half past five, is open through the morning of its date.
    const early = openSpan({ ...night, dayStartsMin: 360, opensMin: 330 }, '2026-11-25');
    expect(new Date(early?.opensMs ?? 0).toISOString()).toBe('2026-11-25T05:30:00.000Z');
  });

  it('knows the weekday of any day', () => {
    expect(['1970-01-01', '2026-11-26', '2026-11-29', '1969-12-31'].map(weekdayOf)).toEqual([
      'thursday',
      'thursday',
      'sunday',
      'wednesday',
    ]);
  });

  it('takes an exception before the week, and the week before the usual', () => {
    expect(hoursOn(usual, '2026-11-26')).toEqual({ opensMin: 450, closesMin: 1080 });
    expect(hoursOn(usual, '2026-11-29')).toEqual({ opensMin: 540, closesMin: 960 });
    expect(hoursOn(usual, '2026-12-07')).toBeNull();
    // A Monday, and yet a market.
    expect(hoursOn(usual, '2026-11-30')).toEqual({ opensMin: 600, closesMin: 900 });
    expect(hoursOn(usual, '2026-12-26')).toBeNull();
    expect(hoursOn(usual, '2026-12-27')).toEqual({ opensMin: 540, closesMin: 960 });
  });

  it('closes past midnight on the day after', () => {
    const span = openSpan(usual, '2026-11-27');
    expect(new Date(span?.closesMs ?? 0).toISOString()).toBe('2026-11-28T01:00:00.000Z');
  });

  it('finds the next day that opens, over a closed one and over holidays', () => {
    expect(nextOpening(usual, Date.parse('2026-12-06T20:00:00Z'))?.day).toBe('2026-12-08');
    expect(nextOpening(usual, Date.parse('2026-12-23T20:00:00Z'))?.day).toBe('2026-12-27');
    // Before the doors open it is the same day.
    expect(nextOpening(usual, Date.parse('2026-11-26T06:00:00Z'))?.day).toBe('2026-11-26');
    expect(
      nextOpening({ ...usual, week: [], exceptions: [{ ...closedFor('2026-01-01', '2030-01-01') }] }, 1e12 * 1.7675),
    ).toBeNull();
  });

  it('puts shifts in the order in which they begin, and none on a closed day', () => {
    expect(shiftsOn(usual, '2026-11-27').map(({ name }) => name)).toEqual(['Early', 'Late', 'Night']);
    expect(shiftsOn(usual, '2026-12-07')).toEqual([]);
    expect(openerOf(usual, '2026-11-27')).toBe('ines');
    expect(openerOf(usual, '2026-12-07')).toBeNull();
  });

  it('says which shift ends, as long as another goes on', () => {
    const at = (time: string) => shiftEnding(usual, Date.parse(`2026-11-26T${time}:00Z`))?.name ?? null;
    expect([at('12:30'), at('12:45'), at('13:50'), at('14:10')]).toEqual([null, 'Early', 'Early', null]);
    // The last one of a Thursday closes.
    expect(at('18:20')).toBeNull();
  });
});

const closedFor = (from: string, until: string) => ({ from, until, closed: true, opensMin: 0, closesMin: 0, why: '' });
