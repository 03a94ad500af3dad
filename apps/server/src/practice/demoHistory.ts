import { benchState, collarStandsAt, emptyMemory, updateWithFacts } from '@tempera/core/calibration';
import { serve, serviceAt } from '@tempera/core/day';
import {
  MINUTES_PER_DAY,
  MINUTES_PER_HOUR,
  MS_PER_DAY,
  MS_PER_MINUTE,
  seededRandom,
  seedFrom,
} from '@tempera/core/numbers';
import {
  ofKind,
  standingFacts,
  type AnyFact,
  type Entry,
  type FactBodies,
  type FactKind,
  type StepBody,
} from '@tempera/core/facts';
import { addDays, momentOf } from '@tempera/core/house';
import { simulateMorning, simulateService } from '@tempera/core/practice';
import { v7 as uuidv7 } from 'uuid';
import { bagsUsed, type DemoBag } from './demoBags.ts';
import { demoId, grinders, groups, site } from './demoBar.ts';
import type { DemoMoment } from '../kernel/config.ts';
import { demoMorning, demoMornings, stalePurge, stepAt, type Calendar } from './demoMornings.ts';
import { coffees, HOUSE_CHANGED_DAYS_AGO, policy, recipes } from './demoHouse.ts';

/** Six weeks on the simulated bar, from a fixed seed: the same shots whenever the demo is first started. */
export const HISTORY_DAYS = 42;
/** The history is played on this calendar and then dated back from today, so that it does not hang on the date. */
const PLAYED_FROM = '2001-01-01';
/** Traces of older shots are not looked at again. */
const TRACES_KEPT_DAYS = 7;

/** One grinder dialled in, or checked, on one group. */
interface Job {
  grinder: string;
  group: string;
  daysAgo: number;
  atMin: number;
  by: string;
}

const crew = ['Ines', 'Tobin', 'Noor'] as const;

/** Mornings: every grinder. Afternoons: a check of the house and the guest grinder, on another group each day. */
function jobsOf(daysAgo: number): Job[] {
  const by = crew[daysAgo % crew.length] ?? 'Ines';
  const other = crew[(daysAgo + 1) % crew.length] ?? 'Noor';
  const group = (i: number, of: readonly string[]): string => of[(daysAgo + i) % of.length] ?? '1';
  return [
    { grinder: 'House', group: group(0, ['1', '2', '1']), daysAgo, atMin: 365, by },
    { grinder: 'Guest', group: group(1, ['2', '3']), daysAgo, atMin: 381, by },
    { grinder: 'Decaf', group: group(0, ['4', '5']), daysAgo, atMin: 372, by: other },
    { grinder: 'Brew', group: '5', daysAgo, atMin: 393, by: other },
    { grinder: 'House', group: group(1, ['3', '2', '1']), daysAgo, atMin: 752, by: other },
    { grinder: 'Guest', group: group(0, ['3', '1', '2']), daysAgo, atMin: 870, by },
  ];
}

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
  const told =
    moment === 'opening' ? thisMorning(now, dated, rows, calendar, newId) : thisDay(now, moment, rows, newId);
  return [
    ...demoMornings(calendar, newId, HISTORY_DAYS),
    ...dated,
    ...served.map((fact) => dateOf(fact, calendar)),
    ...told,
  ];
}

const STEAM_BAR = 1.2;

/** Hands differ: a firmer tamp is a slower shot. */
const HANDS_LN: Record<string, number> = { Ines: 0, Tobin: 0.03, Noor: -0.015 };
const handsLn = (personId: string): number =>
  Object.entries(HANDS_LN).find(([name]) => demoId(`person ${name}`) === personId)?.[1] ?? 0;

/** Timed in service, between the morning and the noon, and after it. */
function servedOf(daysAgo: number): Job[] {
  const by = (i: number): string => crew[(daysAgo + i) % crew.length] ?? 'Ines';
  const timed = (grinder: string, group: string, minutes: readonly number[]): Job[] =>
    minutes.map((atMin, i) => ({ grinder, group, daysAgo, atMin, by: by(i) }));
  return [...timed('House', '1', [470, 545, 640, 730, 830, 950]), ...timed('Guest', '2', [500, 620, 760, 910])];
}

function timeOne(job: Job, atMs: number, known: Map<string, AnyFact[]>, newId: (atMs: number) => string): AnyFact[] {
  const set = stationOf(job);
  if (!set) return [];
  const timed = [{ atMs, personId: demoId(`person ${job.by}`) }];
  return simulateService({ ...set, newId, timed, handsLn }, known.get(set.station.grinder.id) ?? []);
}

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

function play(job: Job, startMs: number, known: Map<string, AnyFact[]>, newId: (atMs: number) => string): AnyFact[] {
  const set = stationOf(job);
  if (!set) return [];
  const { station, recipe } = set;
  return simulateMorning(
    {
      station,
      grinder: station.grinder,
      recipe,
      house: policy.choices,
      startMs,
      newId,
      personId: demoId(`person ${job.by}`),
    },
    known.get(station.grinder.id) ?? [],
  );
}

/** The simulated station of a job, and the recipe of that day; null where the demo has no such grinder. */
function stationOf(job: Pick<Job, 'grinder' | 'group' | 'daysAgo'>) {
  const row = grinders.find(({ name }) => name === job.grinder);
  const target = row && recipeOn(row.firstCoffeeId, job.daysAgo);
  if (!row || !target) return null;
  const dial = { stepMarks: row.stepMarks, finer: row.finer, range: { min: row.dialMin, max: row.dialMax } };
  const recipe = { ...target, timeS: { min: target.timeMinS, max: target.timeMaxS }, recipeVersionId: target.id };
  return {
    station: { siteId: site.id, groupId: demoId(`group ${job.group}`), grinder: { ...row, dial }, recipe },
    recipe,
  };
}

/** The version that was in force that day, of the recipe of the coffee that the grinder holds. */
function recipeOn(coffeeId: string | null, daysAgo: number) {
  const coffee = coffees.find(({ id }) => id === coffeeId);
  const versions = recipes.filter(({ recipeId }) => recipeId === coffee?.recipeId);
  return daysAgo > HOUSE_CHANGED_DAYS_AGO ? versions[0] : versions.at(-1);
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
const MOVED_MARKS = 3;
/** Minutes ago: Fern was switched on, and was hot; Moss was switched on late. */
const FERN_MIN_AGO = { on: 62, hot: 39 };
const MOSS_MIN_AGO = 8;
const NOOR_MIN_AGO = 12;
const OPENS_IN_MIN = 75;
const QUARTER_MIN = 15;

/**
 * An opening half done: one machine is hot, the other still warming; the guest grinder was dialled in just now and holds;
 * the others are due; and after closing somebody turned the house grinder's collar and told nobody.
 */
function thisMorning(
  now: Date,
  before: readonly AnyFact[],
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
  const movedMs = ago(MOVED_HOURS_AGO * MINUTES_PER_HOUR);
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
  const opensMs = Math.ceil((ago(0) + OPENS_IN_MIN * MS_PER_MINUTE) / (QUARTER_MIN * MS_PER_MINUTE));
  const step = (minutesAgo: number, personId: string, body: StepBody): Entry =>
    stepAt(newId, ago(minutesAgo), personId, body);
  const water = { step: 'water' as const, waterRuns: true, filterInDate: true };
  return [
    step(FERN_MIN_AGO.on + 2, ines, {
      step: 'planned',
      opensAt: new Date(opensMs * QUARTER_MIN * MS_PER_MINUTE).toISOString(),
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

/** How long the bar has been open, hours. */
const OPEN_HOURS = { service: 3.2, close: 9.8 };
const OPENS_AT_MIN = 450;
const SIGNED_AT_MIN = 444;
const CHECKED_AT_MIN = 432;
/** The house grinder is timed every so often; by now its check is due. */
const TIMED_EVERY_MIN = 55;
const LAST_TIMED_MIN_AGO = 72;
const RUSH_MIN_AGO = { began: 110, ended: 45 };

/** A shot timed, a dose weighed beside it, and the small move that the day's controller asks for. */
function lookAt(
  job: Job,
  atMs: number,
  known: Map<string, AnyFact[]>,
  newId: (atMs: number) => string,
  follows: boolean,
): AnyFact[] {
  const set = stationOf(job);
  if (!set) return [];
  const { station, recipe } = set;
  const { id } = station.grinder;
  const add = (facts: AnyFact[]): AnyFact[] => {
    known.set(id, [...(known.get(id) ?? []), ...facts]);
    return facts;
  };
  const by = { personId: demoId(`person ${job.by}`), grinderId: id, groupId: null };
  const fact = <K extends FactKind>(kind: K, afterMs: number, body: FactBodies[K]): AnyFact => {
    const at = atMs + afterMs;
    return { id: newId(at), kind, at: new Date(at).toISOString(), ...by, body } as AnyFact;
  };
  const shots = add(timeOne(job, atMs, known, newId));
  const facts = standingFacts((known.get(id) ?? []).filter(({ at }) => atMs - Date.parse(at) < MS_PER_DAY));
  const setting = collarStandsAt(facts) ?? station.grinder.seedSetting;
  const grindTimeS = ofKind(facts, 'lock').at(-1)?.body.doseTimeS ?? null;
  const dose = add([
    fact('dose', MS_PER_MINUTE, { setting, doseG: recipe.doseG, grindTimeS, measuredBy: 'hand', way: 'scale' }),
  ]);
  const context = { grinders: new Map([[id, station.grinder]]), recipeOf: () => recipe };
  const memory = updateWithFacts(emptyMemory, facts, context);
  const { adviceCase } = benchState(facts, station.grinder, recipe, policy.choices, atMs, memory);
  const advice = serve(adviceCase, serviceAt(facts, atMs, null));
  if (!follows || advice.action !== 'move') return [...shots, ...dose];
  const { setting: to, purgeG } = advice;
  const moved = [
    fact('collarMove', 2 * MS_PER_MINUTE, { from: setting, to, advisedTo: to, service: true }),
    fact('purge', 2 * MS_PER_MINUTE + 1, { purgeG }),
  ];
  return [...shots, ...dose, ...add(moved)];
}

/** A whole morning signed off, and the day since: shots timed, a rush that came and went, a hopper topped up. */
function thisDay(
  now: Date,
  moment: 'service' | 'close',
  played: readonly AnyFact[],
  newId: (atMs: number) => string,
): Entry[] {
  const openedMs = now.getTime() - OPEN_HOURS[moment] * MINUTES_PER_HOUR * MS_PER_MINUTE;
  const at = (minutes: number): number => openedMs + (minutes - OPENS_AT_MIN) * MS_PER_MINUTE;
  const ago = (minutes: number): number => now.getTime() - minutes * MS_PER_MINUTE;
  const [ines, tobin] = [demoId('person Ines'), demoId('person Tobin')];
  const step = (atMs: number, body: StepBody): Entry => stepAt(newId, atMs, ines, body);
  const known = new Map(grinders.map(({ id }) => [id, played.filter(({ grinderId }) => grinderId === id)]));
  const dialled = jobsOf(0)
    .filter(({ atMin }) => atMin < OPENS_AT_MIN)
    .flatMap((job) => {
      const facts = play(job, at(job.atMin), known, newId);
      const id = demoId(`grinder ${job.grinder}`);
      known.set(id, [...(known.get(id) ?? []), ...facts]);
      return facts;
    });
  const times = (last: number, every: number): number[] =>
    Array.from(
      { length: Math.floor((OPEN_HOURS[moment] * MINUTES_PER_HOUR - last) / every) },
      (_, i) => last + i * every,
    );
  const timed = [
    ...times(LAST_TIMED_MIN_AGO, TIMED_EVERY_MIN).map((minutes, i) => ({ grinder: 'House', group: '1', minutes, i })),
    ...times(20, 60).map((minutes, i) => ({ grinder: 'Guest', group: '2', minutes, i })),
    ...times(15, 90).map((minutes, i) => ({ grinder: 'Decaf', group: '4', minutes, i })),
    ...times(31, 80).map((minutes, i) => ({ grinder: 'Brew', group: '5', minutes, i })),
  ]
    .toSorted((a, b) => b.minutes - a.minutes)
    .flatMap(({ minutes, i, ...station }) => {
      const job = { ...station, daysAgo: 0, atMin: 0, by: crew[i % 2] ?? 'Ines' };
      // The last look at the house grinder waits for whoever opens the demo.
      const follows = station.grinder !== 'House' || minutes > LAST_TIMED_MIN_AGO;
      return lookAt(job, ago(minutes), known, newId, follows);
    });
  const opening = demoMorning(at, newId, ines, seededRandom(seedFrom('demo day')));
  return [
    step(at(330), {
      step: 'planned',
      opensAt: new Date(openedMs).toISOString(),
      from: new Date(at(330)).toISOString(),
      people: [ines, tobin].map((personId) => ({ personId, from: new Date(at(330)).toISOString() })),
      detergent: false,
    }),
    ...opening,
    ...dialled,
    ...groups.map(({ id }) =>
      step(at(CHECKED_AT_MIN), {
        step: 'groupChecked',
        groupId: id,
        offS: 0.2,
        sdS: 0.8,
        finding: 'none',
        foundId: null,
        chance: 0.9,
      }),
    ),
    step(at(SIGNED_AT_MIN), { step: 'signedOff', notRight: [] }),
    ...timed,
    step(ago(RUSH_MIN_AGO.began), { step: 'happened', what: 'rushBegan', grinderId: null }),
    step(ago(RUSH_MIN_AGO.ended), { step: 'happened', what: 'rushEnded', grinderId: null }),
    step(ago(RUSH_MIN_AGO.ended + 8), { step: 'happened', what: 'refill', grinderId: demoId('grinder Guest') }),
  ];
}
