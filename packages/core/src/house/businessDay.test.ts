import { describe, expect, it } from 'vitest';
import { addDays, businessDay, daysBetween, momentOf } from './businessDay.ts';

const FOUR = 4 * 60;
const at = (iso: string): number => Date.parse(iso);

describe('the business day', () => {
  it.each([
    ['an hour past midnight belongs to the evening before', '2031-05-05T00:30:00Z', 'Europe/Lisbon', '2031-05-04'],
    ['half past five is the new day', '2031-05-05T04:30:00Z', 'Europe/Lisbon', '2031-05-05'],
    ['a bar east of Greenwich opens before midnight UTC', '2031-05-04T20:30:00Z', 'Australia/Brisbane', '2031-05-05'],
    ['and one west of it closes after', '2031-05-05T05:00:00Z', 'America/Los_Angeles', '2031-05-04'],
    ['the date line is no obstacle', '2031-05-04T18:30:00Z', 'Pacific/Auckland', '2031-05-05'],
  ])('%s', (_name, iso, timeZone, day) => {
    expect(businessDay(at(iso), timeZone, FOUR)).toBe(day);
  });

  it('turns at its minute, to the millisecond, also where clocks stand askew or are set by half an hour', () => {
    for (const [zone, turn] of [
      ['Asia/Kathmandu', '2031-05-04T22:15:00Z'],
      ['Australia/Lord_Howe', '2031-04-05T17:30:00Z'], // set back by half an hour at 15:00Z
    ] as const) {
      const day = businessDay(at(turn), zone, FOUR);
      expect(businessDay(at(turn) - 1, zone, FOUR), zone).toBe(addDays(day, -1));
    }
  });

  it('may begin at midnight', () => {
    expect(businessDay(at('2031-05-05T00:30:00Z'), 'UTC', 0)).toBe('2031-05-05');
  });
});

describe('moments and days', () => {
  it('finds the moment of a wall clock, winter and summer, and over a change of the clocks', () => {
    expect(momentOf('2031-01-10', 450, 'Europe/Lisbon')).toBe(at('2031-01-10T07:30:00Z'));
    expect(momentOf('2031-07-10', 450, 'Europe/Lisbon')).toBe(at('2031-07-10T06:30:00Z'));
    // Clocks go forward at one in the morning of 30 March 2031.
    expect(momentOf('2031-03-30', 0, 'Europe/Lisbon')).toBe(at('2031-03-30T00:00:00Z'));
    expect(momentOf('2031-03-30', 450, 'Europe/Lisbon')).toBe(at('2031-03-30T06:30:00Z'));
  });

  it('counts calendar days whatever the clocks do', () => {
    expect(addDays('2031-02-27', 3)).toBe('2031-03-02');
    expect(addDays('2031-03-30', -1)).toBe('2031-03-29');
    expect(daysBetween('2031-03-29', '2031-04-01')).toBe(3);
  });
});
