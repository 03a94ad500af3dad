import { gaussian, seededRandom, seedFrom, type Random } from '@tempera/core/numbers';
import type { AnyFact, Entry, JobKind, StepBody, StepFact } from '@tempera/core/facts';
import { demoId, grinders, groups, machines } from './demoBar.ts';

/** The mornings' own steps over six weeks: machines switched on and hot, and how long each kind of job took. */

/** A calendar on which the history is played: minutes since its first midnight, and the moment that they stand for. */
export interface Calendar {
  playedMs(daysAgo: number, minutes: number): number;
  realMs(playedMs: number): number;
}

type NewId = (atMs: number) => string;

export function stepAt(newId: NewId, atMs: number, personId: string, body: StepBody): StepFact {
  const at = new Date(atMs).toISOString();
  return { id: newId(atMs), kind: 'step', at, personId, grinderId: null, groupId: null, body };
}

/** A dose that stood in the chute overnight, thrown away. */
export function stalePurge(newId: NewId, atMs: number, personId: string, grinderId: string): AnyFact {
  return {
    id: newId(atMs),
    kind: 'purge',
    at: new Date(atMs).toISOString(),
    personId,
    grinderId,
    groupId: null,
    body: { purgeG: DOSE_G, why: 'stale' },
  };
}

const DOSE_G = 18;
const SWITCHED_ON_MIN = 337;
const STEAM_BAR = 1.2;

/** A job of a morning: when it is taken in hand, how long it takes, and what it leaves behind. */
interface DemoJob {
  job: JobKind;
  stationId: string | null;
  atMin: number;
  meanMin: number;
  done: StepBody;
}

const water = (machineId: string): StepBody => ({ step: 'water', machineId, waterRuns: true, filterInDate: true });

function jobs(): DemoJob[] {
  return [
    ...machines.map(({ row }, i) => ({
      job: 'water' as const,
      stationId: row.id,
      atMin: 334 + i,
      meanMin: 0.9,
      done: water(row.id),
    })),
    { job: 'scale', stationId: null, atMin: 339, meanMin: 0.8, done: { step: 'scale', knownG: 200, shownG: 200 } },
    ...grinders.map(({ id }, i) => ({
      job: 'hopper' as const,
      stationId: id,
      atMin: 341 + 3 * i,
      meanMin: 1.8,
      done: { step: 'hopper' as const, grinderId: id },
    })),
    ...groups.map(({ id }, i) => ({
      job: 'rinse' as const,
      stationId: id,
      atMin: 363 + 1.6 * i,
      meanMin: 1.1,
      done: { step: 'rinsed' as const, groupId: id, rinseS: 5, screenCleaned: true, detergent: false },
    })),
    ...grinders.map(({ id }, i) => ({
      job: 'firstDose' as const,
      stationId: id,
      atMin: 353 + 3.5 * i,
      meanMin: 0.9,
      done: { step: 'firstDose' as const, grinderId: id },
    })),
    {
      job: 'milk',
      stationId: null,
      atMin: 398,
      meanMin: 2.6,
      done: {
        step: 'milk',
        purged: true,
        steamBar: STEAM_BAR,
        thermometer: { in: 'ice', showedC: 0.2 },
        stopC: 55,
      },
    },
  ];
}

/** How much the same job takes longer or shorter from one morning to the next. */
const MORNING_LN_SD = 0.25;

/** The steps of every morning so many days back. */
export function demoMornings(calendar: Calendar, newId: NewId, days: number): Entry[] {
  const random = seededRandom(seedFrom('demo mornings'));
  const crew = ['Ines', 'Tobin', 'Noor'] as const;
  return Array.from({ length: days }, (_, i) => days - i).flatMap((daysAgo) => {
    const personId = demoId(`person ${crew[daysAgo % crew.length] ?? 'Ines'}`);
    const at = (minutes: number): number => calendar.realMs(calendar.playedMs(daysAgo, minutes));
    return [...demoMorning(at, newId, personId, random), ...signedRun(at, newId, daysAgo)];
  });
}

const PLANNED_MIN = 332;
const DOORS_MIN = 450;
/** The signature of a usual morning, and how it varies: tighter than it takes to be early every day. */
const READY = { atMin: 431, sdMin: 9 };
/** Once in so many mornings something holds everybody up. */
const HELD_UP = { everyDays: 15, onDay: 4, byMin: 31 };

/** The run of one morning: planned as the first one comes in, and signed for by the head. */
function signedRun(at: (minutes: number) => number, newId: NewId, daysAgo: number): Entry[] {
  const random = seededRandom(seedFrom(`demo run ${daysAgo}`));
  const heldUpMin = daysAgo % HELD_UP.everyDays === HELD_UP.onDay ? HELD_UP.byMin : 0;
  const head = demoId('person Ines');
  const from = new Date(at(PLANNED_MIN)).toISOString();
  const planned: StepBody = {
    step: 'planned',
    opensAt: new Date(at(DOORS_MIN)).toISOString(),
    from,
    people: [{ personId: head, from }],
    detergent: false,
  };
  const readyMin = READY.atMin + READY.sdMin * gaussian(random) + heldUpMin;
  return [
    stepAt(newId, at(PLANNED_MIN), head, planned),
    stepAt(newId, at(readyMin), head, { step: 'signedOff', notRight: [] }),
  ];
}

/** The steps of one morning. @param at ms since the epoch of a minute of the café's day */
export function demoMorning(at: (minutes: number) => number, newId: NewId, personId: string, random: Random): Entry[] {
  const step = (minutes: number, body: StepBody): StepFact => stepAt(newId, at(minutes), personId, body);
  const worked = jobs().flatMap(({ job, stationId, atMin, meanMin, done }) => [
    step(atMin, { step: 'begun', job, stationId }),
    step(atMin + meanMin * Math.exp(MORNING_LN_SD * gaussian(random)), done),
  ]);
  const warmed = machines.flatMap(({ row }, i) => {
    const onMin = SWITCHED_ON_MIN + 2 * i + 6 * random();
    const hotMin = onMin + row.warmUpMin - 2 + 3 * gaussian(random);
    const steamBar = Math.round(10 * (STEAM_BAR + 0.06 * gaussian(random))) / 10;
    return [
      step(onMin, { step: 'switchedOn', machineId: row.id, readings: [], takesBack: null }),
      step(hotMin, {
        step: 'hot',
        machineId: row.id,
        readings: [{ gauge: 'Steam', value: steamBar }],
        takesBack: null,
      }),
    ];
  });
  const stale = worked.flatMap(({ at: doneAt, body }) =>
    body.step === 'firstDose' ? [stalePurge(newId, Date.parse(doneAt), personId, body.grinderId)] : [],
  );
  return [...warmed, ...worked, ...stale];
}
