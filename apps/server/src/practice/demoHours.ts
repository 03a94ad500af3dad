import { businessDay, momentOf } from '@tempera/core/house';
import { MINUTES_PER_DAY, MS_PER_HOUR, MS_PER_MINUTE } from '@tempera/core/numbers';
import type { DemoMoment } from '../kernel/config.ts';
import { demoId, site } from './demoBar.ts';
import { OPEN_HOURS } from './demoDay.ts';
import { demoOpensMs } from './demoHistory.ts';

/** Early and late, every open day, with half an hour in which both are in. */
const shifts = [
  { name: 'The early shift', weekday: null, fromMin: 345, toMin: 780, personId: demoId('person Ines') },
  { name: 'The late shift', weekday: null, fromMin: 750, toMin: 1_130, personId: demoId('person Tobin') },
];
const week = [{ weekday: 'sunday' as const, closed: false, opensMin: 540, closesMin: 960 }];

/** Somebody is in so long before the doors open. */
const IN_BEFORE_MIN = 120;
const around = (minutes: number): number => (minutes + MINUTES_PER_DAY) % MINUTES_PER_DAY;

/** And until so long after they close. */
const OUT_AFTER_MIN = 120;

/** In the demo the doors opened a while ago or open soon, whatever the clock shows: that one day goes by hours of its own. */
export function demoHours(moment: DemoMoment, now: Date) {
  const { opensMin, closesMin, dayStartsMin, timeZone } = site;
  const openedMs = moment === 'opening' ? demoOpensMs(now) : now.getTime() - OPEN_HOURS[moment] * MS_PER_HOUR;
  const date = businessDay(openedMs, timeZone, 0);
  const openedMin = Math.round((openedMs - momentOf(date, 0, timeZone)) / MS_PER_MINUTE);
  const hours = { closed: false, opensMin: openedMin, closesMin: around(openedMin + closesMin - opensMin) };
  const inMs = openedMs - IN_BEFORE_MIN * MS_PER_MINUTE;
  const outMs = openedMs + (closesMin - opensMin + OUT_AFTER_MIN) * MS_PER_MINUTE;
  const oneDay = [inMs, outMs].map((atMs) => businessDay(atMs, timeZone, dayStartsMin));
  // A day that would turn between its first and its last hour begins with whoever came in first.
  const startsMin = oneDay[0] === oneDay[1] ? dayStartsMin : around(openedMin - IN_BEFORE_MIN);
  const from = businessDay(openedMs, timeZone, startsMin);
  return {
    dayStartsMin: startsMin,
    week,
    shifts,
    exceptions: [{ from, until: null, ...hours, why: 'A feast in the garden' }],
  };
}
