import { MINUTES_PER_DAY, MINUTES_PER_HOUR, MS_PER_MINUTE, seededRandom, seedFrom } from '@tempera/core/numbers';
import type { AnyFact, Entry, StepBody } from '@tempera/core/facts';
import { addDays, momentOf } from '@tempera/core/house';
import { v7 as uuidv7 } from 'uuid';
import type { DemoMoment } from '../kernel/config.ts';
import { bagsUsed, type DemoBag } from './demoBags.ts';
import { demoId, site } from './demoBar.ts';
import { thisDay } from './demoDay.ts';
import { demoEvenings } from './demoEvenings.ts';
import { demoMornings, stalePurge, stepAt, type Calendar } from './demoMornings.ts';
import { crew, jobsOf, play, servedOf, timeOne, type Job } from './demoStation.ts';

/** Six weeks on the simulated bar, from a fixed seed: the same shots whenever the demo is first started. */
export const HISTORY_DAYS = 42;
/** The history is played on this calendar and then dated back from today, so that it does not hang on the date. */
const PLAYED_FROM = '2001-01-01';
/** Traces of older shots are not looked at again. */
const TRACES_KEPT_DAYS = 7;

function calendarOf(today: string): Calendar {
  const startMs = Date.parse(`${PLAYED_FROM}T00:00:00Z`);
  return {
    playedMs: (daysAgo, minutes) => startMs + ((HISTORY_DAYS - daysAgo) * MINUTES_PER_DAY + minutes) * MS_PER_MINUTE,
    realMs: (playedMs) => {
      const minutes = (playedMs - startMs) / MS_PER_MINUTE;
      const days = Math.floor(minutes / MINUTES_PER_DAY);
      const day = addDays(today, days - HISTORY_DAYS);
      return momentOf(day, 0, site.timeZone) + (minutes - days * MINUTES_PER_DAY) * MS_PER_MINUTE;
    },
  };
}

/** Ids that sort by time and come out the same each time. */
function idMaker(): (atMs: number) => string {
  const random = seededRandom(seedFrom('demo history'));
  const BYTES = 16;
  const BYTE = 256;
  return (atMs) =>
    uuidv7({ msecs: atMs, random: Uint8Array.from({ length: BYTES }, () => Math.floor(random() * BYTE)) });
}

/**
 * The facts of the six weeks before `now`, oldest first.
 * @param today the café's business day
 */
export function demoHistory(now: Date, today: string, moment: DemoMoment): Entry[] {
  const calendar = calendarOf(today);
  const newId = idMaker();
  const known = new Map<string, AnyFact[]>();
  const rows: AnyFact[] = [];
  /** Customers' own shots: they change nothing at the grinder, so what is dialled in does not hang on them. */
  const served: AnyFact[] = [];
  const add = (grinderId: string, facts: readonly AnyFact[]): void => {
    known.set(grinderId, [...(known.get(grinderId) ?? []), ...facts]);
    rows.push(...facts);
  };
  const used = bagsUsed(HISTORY_DAYS);
  for (let daysAgo = HISTORY_DAYS; daysAgo >= 1; daysAgo -= 1) {
    const bags = used.filter((bag) => bag.daysAgo === daysAgo).map((bag) => ({ atMin: bag.atMin, bag, job: null }));
    const jobs = jobsOf(daysAgo).map((job) => ({ atMin: job.atMin, job, bag: null }));
    const shots = servedOf(daysAgo).map((timed) => ({ atMin: timed.atMin, timed, bag: null, job: null }));
    for (const { bag, job, ...rest } of [...bags, ...jobs, ...shots].toSorted((a, b) => a.atMin - b.atMin)) {
      if ('timed' in rest) served.push(...timeOne(rest.timed, calendar.playedMs(daysAgo, rest.atMin), known, newId));
      if (bag) add(demoId(`grinder ${bag.grinder}`), [bagFact(bag, calendar, newId)]);
      if (job) add(demoId(`grinder ${job.grinder}`), play(job, calendar.playedMs(daysAgo, job.atMin), known, newId));
    }
  }
  const dated = rows.map((fact) => dateOf(fact, calendar));
  const timed = served.map((fact) => dateOf(fact, calendar));
  const told =
    moment === 'opening'
      ? thisMorning(now, dated, timed, rows, calendar, newId)
      : thisDay(now, moment, rows, newId, today);
  return [
    ...demoMornings(calendar, newId, HISTORY_DAYS),
    ...demoEvenings(calendar, newId, HISTORY_DAYS),
    ...dated,
    ...timed,
    ...told,
  ];
}

const STEAM_BAR = 1.2;

function bagFact(bag: DemoBag, calendar: Calendar, newId: (atMs: number) => string): AnyFact {
  const atMs = calendar.playedMs(bag.daysAgo, bag.atMin);
  return {
    id: newId(calendar.realMs(atMs)),
    kind: 'newBag',
    at: new Date(atMs).toISOString(),
    personId: demoId(`person ${crew[bag.daysAgo % crew.length] ?? 'Ines'}`),
    grinderId: demoId(`grinder ${bag.grinder}`),
    groupId: null,
    body: {
      roastedOn: addDays(new Date(calendar.realMs(atMs)).toISOString().slice(0, 10), bag.daysAgo - bag.roastedDaysAgo),
      bagId: bag.id,
      coffeeId: demoId(`coffee ${bag.coffee}`),
    },
  };
}

/** A played fact on the real calendar. */
function dateOf(fact: AnyFact, calendar: Calendar): AnyFact {
  const atMs = calendar.realMs(Date.parse(fact.at));
  const dated = { ...fact, at: new Date(atMs).toISOString() };
  const old = Date.parse(PLAYED_FROM) + (HISTORY_DAYS - TRACES_KEPT_DAYS) * MINUTES_PER_DAY * MS_PER_MINUTE;
  if (dated.kind === 'shot' && Date.parse(fact.at) < old) return { ...dated, body: { ...dated.body, trace: null } };
  return dated;
}

const GUEST_MIN_AGO = 25;
const GUEST_AT_MIN = 381;
const MOVED_HOURS_AGO = 9;
const MOVED_AFTER_MIN = 10;
const MOVED_MARKS = 3;
const atMsOf = ({ at }: AnyFact): number => Date.parse(at);
/** Minutes ago: Fern was switched on, and was hot; Moss was switched on late. */
const FERN_MIN_AGO = { on: 62, hot: 39 };
const MOSS_MIN_AGO = 8;
const NOOR_MIN_AGO = 12;
const OPENS_IN_MIN = 75;
const QUARTER_MIN = 15;

/** When the bar opens in the demo of its morning: at the quarter of an hour after the next one, ms since the epoch. */
export const demoOpensMs = (now: Date): number => {
  const quarterMs = QUARTER_MIN * MS_PER_MINUTE;
  return Math.ceil((now.getTime() + OPENS_IN_MIN * MS_PER_MINUTE) / quarterMs) * quarterMs;
};

/**
 * An opening half done: one machine is hot, the other still warming; the guest grinder was dialled in just now and holds;
 * the others are due; and after closing somebody turned the house grinder's collar and told nobody.
 */
function thisMorning(
  now: Date,
  before: readonly AnyFact[],
  served: readonly AnyFact[],
  played: readonly AnyFact[],
  calendar: Calendar,
  newId: (atMs: number) => string,
): Entry[] {
  const [guest, house] = [demoId('grinder Guest'), demoId('grinder House')];
  const known = new Map([[guest, played.filter((fact) => fact.grinderId === guest)]]);
  const ago = (minutes: number): number => now.getTime() - minutes * MS_PER_MINUTE;
  // Played on the calendar like all before it, and dated to a moment ago: the same shots whenever the demo is started.
  const playedMs = calendar.playedMs(0, GUEST_AT_MIN);
  const guestJob: Job = { grinder: 'Guest', group: '2', daysAgo: 0, atMin: GUEST_AT_MIN, by: 'Ines' };
  const dialled = play(guestJob, playedMs, known, newId).map((fact): AnyFact => ({
    ...fact,
    at: new Date(ago(GUEST_MIN_AGO) + Date.parse(fact.at) - playedMs).toISOString(),
  }));
  const lock = before.findLast((fact) => fact.grinderId === house && fact.kind === 'lock');
  const from = lock?.kind === 'lock' ? lock.body.setting : 30;
  // Soon after midnight nine hours ago the bar still served.
  const lastMs = Math.max(...[...before, ...served].filter(({ grinderId }) => grinderId === house).map(atMsOf));
  const movedMs = Math.max(ago(MOVED_HOURS_AGO * MINUTES_PER_HOUR), lastMs + MOVED_AFTER_MIN * MS_PER_MINUTE);
  const moved: AnyFact = {
    id: newId(movedMs),
    kind: 'collarMove',
    at: new Date(movedMs).toISOString(),
    personId: demoId('person Tobin'),
    grinderId: house,
    groupId: null,
    body: { from, to: from + MOVED_MARKS, advisedTo: null },
  };
  const [ines, noor] = [demoId('person Ines'), demoId('person Noor')];
  const [fern, moss] = [demoId('machine Fern'), demoId('machine Moss')];
  const step = (minutesAgo: number, personId: string, body: StepBody): Entry =>
    stepAt(newId, ago(minutesAgo), personId, body);
  const water = { step: 'water' as const, waterRuns: true, filterInDate: true };
  return [
    step(FERN_MIN_AGO.on + 2, ines, {
      step: 'planned',
      opensAt: new Date(demoOpensMs(now)).toISOString(),
      from: new Date(ago(FERN_MIN_AGO.on + 2)).toISOString(),
      people: [
        { personId: ines, from: new Date(ago(FERN_MIN_AGO.on + 2)).toISOString() },
        { personId: noor, from: new Date(ago(NOOR_MIN_AGO)).toISOString() },
      ],
      detergent: false,
    }),
    step(FERN_MIN_AGO.on + 1, ines, { ...water, machineId: fern }),
    step(FERN_MIN_AGO.on, ines, { step: 'switchedOn', machineId: fern, readings: [], takesBack: null }),
    step(FERN_MIN_AGO.on - 4, ines, { step: 'scale', knownG: 200, shownG: 200.1 }),
    step(FERN_MIN_AGO.on - 8, ines, { step: 'hopper', grinderId: guest }),
    step(FERN_MIN_AGO.hot, ines, {
      step: 'hot',
      machineId: fern,
      readings: [{ gauge: 'Steam', value: STEAM_BAR }],
      takesBack: null,
    }),
    step(FERN_MIN_AGO.hot - 2, ines, {
      step: 'rinsed',
      groupId: demoId('group 2'),
      rinseS: 5,
      screenCleaned: true,
      detergent: false,
    }),
    step(GUEST_MIN_AGO + 2, ines, { step: 'firstDose', grinderId: guest }),
    stalePurge(newId, ago(GUEST_MIN_AGO + 2), ines, guest),
    step(MOSS_MIN_AGO + 1, noor, { ...water, machineId: moss }),
    step(MOSS_MIN_AGO, noor, { step: 'switchedOn', machineId: moss, readings: [], takesBack: null }),
    moved,
    ...dialled,
  ];
}
