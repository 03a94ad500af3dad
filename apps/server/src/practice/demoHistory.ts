import { MINUTES_PER_DAY, MINUTES_PER_HOUR, MS_PER_MINUTE, seededRandom, seedFrom } from '@tempera/core/numbers';
import type { AnyFact, Entry, StepBody } from '@tempera/core/facts';
import { addDays, momentOf } from '@tempera/core/house';
import { simulateMorning } from '@tempera/core/practice';
import { v7 as uuidv7 } from 'uuid';
import { bagsUsed, type DemoBag } from './demoBags.ts';
import { demoId, grinders, site } from './demoBar.ts';
import { demoMornings, stalePurge, stepAt, type Calendar } from './demoMornings.ts';
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
export function demoHistory(now: Date, today: string): Entry[] {
  const calendar = calendarOf(today);
  const newId = idMaker();
  const known = new Map<string, AnyFact[]>();
  const rows: AnyFact[] = [];
  const add = (grinderId: string, facts: readonly AnyFact[]): void => {
    known.set(grinderId, [...(known.get(grinderId) ?? []), ...facts]);
    rows.push(...facts);
  };
  const used = bagsUsed(HISTORY_DAYS);
  for (let daysAgo = HISTORY_DAYS; daysAgo >= 1; daysAgo -= 1) {
    const bags = used.filter((bag) => bag.daysAgo === daysAgo).map((bag) => ({ atMin: bag.atMin, bag, job: null }));
    const jobs = jobsOf(daysAgo).map((job) => ({ atMin: job.atMin, job, bag: null }));
    for (const { bag, job } of [...bags, ...jobs].toSorted((a, b) => a.atMin - b.atMin)) {
      if (bag) add(demoId(`grinder ${bag.grinder}`), [bagFact(bag, calendar, newId)]);
      if (job) add(demoId(`grinder ${job.grinder}`), play(job, calendar.playedMs(daysAgo, job.atMin), known, newId));
    }
  }
  const dated = rows.map((fact) => dateOf(fact, calendar));
  return [...demoMornings(calendar, newId, HISTORY_DAYS), ...dated, ...thisMorning(now, dated, rows, calendar, newId)];
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

function play(job: Job, startMs: number, known: Map<string, AnyFact[]>, newId: (atMs: number) => string): AnyFact[] {
  const row = grinders.find(({ name }) => name === job.grinder);
  const target = row && recipeOn(row.firstCoffeeId, job.daysAgo);
  if (!row || !target) return [];
  const dial = { stepMarks: row.stepMarks, finer: row.finer, range: { min: row.dialMin, max: row.dialMax } };
  const recipe = { ...target, timeS: { min: target.timeMinS, max: target.timeMaxS }, recipeVersionId: target.id };
  const before = known.get(row.id) ?? [];
  return simulateMorning(
    {
      station: { siteId: site.id, groupId: demoId(`group ${job.group}`), grinder: { ...row, dial }, recipe },
      grinder: { ...row, dial },
      recipe,
      house: policy.choices,
      startMs,
      newId,
      personId: demoId(`person ${job.by}`),
    },
    before,
  );
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
