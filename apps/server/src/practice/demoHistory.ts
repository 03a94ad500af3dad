import type { AnyFact, StepFact } from '@tempera/core/journal';
import { addDays, momentOf } from '@tempera/core/house';
import { gaussian, seededRandom, seedFrom, simulateMorning } from '@tempera/core/practice';
import dayjs from 'dayjs';
import { v7 as uuidv7 } from 'uuid';
import { bagsUsed, type DemoBag } from './demoBags.ts';
import { demoId, grinders, machines, site } from './demoBar.ts';
import { coffees, HOUSE_CHANGED_DAYS_AGO, policy, recipes } from './demoHouse.ts';

/** Six weeks on the simulated bar, from a fixed seed: the same shots whenever the demo is first started. */
export const HISTORY_DAYS = 42;
/** The history is played on this calendar and then dated back from today, so that it does not hang on the date. */
const PLAYED_FROM = '2001-01-01';
/** Traces of older shots are not looked at again. */
const TRACES_KEPT_DAYS = 7;
const MINUTES_PER_DAY = 1_440;
const MS_PER_MINUTE = 60_000;

export interface DatedFact {
  fact: AnyFact | StepFact;
  personId: string;
}

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
    { grinder: 'House', group: group(1, ['3', '1', '2']), daysAgo, atMin: 752, by: other },
    { grinder: 'Guest', group: group(0, ['3', '1', '2']), daysAgo, atMin: 870, by },
  ];
}

/** A calendar on which the history is played: minutes since its first midnight, and the moment that they stand for. */
interface Calendar {
  playedMs(daysAgo: number, minutes: number): number;
  realMs(playedMs: number): number;
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
export function demoHistory(now: Date, today: string): DatedFact[] {
  const calendar = calendarOf(today);
  const newId = idMaker();
  const known = new Map<string, AnyFact[]>();
  const rows: { fact: AnyFact; personId: string }[] = [];
  const add = (grinderId: string, facts: readonly AnyFact[], by: string): void => {
    known.set(grinderId, [...(known.get(grinderId) ?? []), ...facts]);
    rows.push(...facts.map((fact) => ({ fact, personId: demoId(`person ${by}`) })));
  };
  const used = bagsUsed(HISTORY_DAYS);
  for (let daysAgo = HISTORY_DAYS; daysAgo >= 1; daysAgo -= 1) {
    const bags = used.filter((bag) => bag.daysAgo === daysAgo).map((bag) => ({ atMin: bag.atMin, bag, job: null }));
    const jobs = jobsOf(daysAgo).map((job) => ({ atMin: job.atMin, job, bag: null }));
    for (const { bag, job } of [...bags, ...jobs].toSorted((a, b) => a.atMin - b.atMin)) {
      if (bag)
        add(demoId(`grinder ${bag.grinder}`), [bagFact(bag, calendar, newId)], crew[daysAgo % crew.length] ?? 'Ines');
      if (job)
        add(demoId(`grinder ${job.grinder}`), play(job, calendar.playedMs(daysAgo, job.atMin), known, newId), job.by);
    }
  }
  const dated = rows.map(({ fact, personId }) => ({ personId, fact: dateOf(fact, calendar) }));
  return [...warmUps(calendar, newId), ...dated, ...thisMorning(now, dated, newId)];
}

const SWITCHED_ON_MIN = 337;
const STEAM_BAR = 1.2;

/** A step of a machine, read at `atMs`. */
function stepAt(
  newId: (atMs: number) => string,
  atMs: number,
  machineId: string,
  step: StepFact['body']['step'],
  steamBar: number | null,
): StepFact {
  const readings = steamBar === null ? [] : [{ gauge: 'Steam', value: Math.round(10 * steamBar) / 10 }];
  const body = { step, machineId, readings, takesBack: null };
  return { id: newId(atMs), kind: 'step', at: new Date(atMs).toISOString(), grinderId: null, groupId: null, body };
}

/** Every morning both machines are switched on, and read when they are hot. */
function warmUps(calendar: Calendar, newId: (atMs: number) => string): DatedFact[] {
  const random = seededRandom(seedFrom('demo warm-ups'));
  return Array.from({ length: HISTORY_DAYS }, (_, i) => HISTORY_DAYS - i).flatMap((daysAgo) =>
    machines.flatMap(({ row }, i) => {
      const onMin = SWITCHED_ON_MIN + 2 * i + 6 * random();
      const hotMin = onMin + row.warmUpMin - 2 + 3 * gaussian(random);
      const at = (minutes: number): number => calendar.realMs(calendar.playedMs(daysAgo, minutes));
      const personId = demoId(`person ${crew[daysAgo % crew.length] ?? 'Ines'}`);
      return [
        { fact: stepAt(newId, at(onMin), row.id, 'switchedOn', null), personId },
        { fact: stepAt(newId, at(hotMin), row.id, 'hot', STEAM_BAR + 0.06 * gaussian(random)), personId },
      ];
    }),
  );
}

function bagFact(bag: DemoBag, calendar: Calendar, newId: (atMs: number) => string): AnyFact {
  const atMs = calendar.playedMs(bag.daysAgo, bag.atMin);
  return {
    id: newId(calendar.realMs(atMs)),
    kind: 'newBag',
    at: new Date(atMs).toISOString(),
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
      house: policy,
      startMs,
      newId,
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
const MOVED_HOURS_AGO = 9;
const MOVED_MARKS = 3;
/** Minutes ago: Fern was switched on, and was hot; Moss was switched on late. */
const FERN_MIN_AGO = { on: 62, hot: 39 };
const MOSS_MIN_AGO = 8;

/**
 * An opening half done: one machine is hot, the other still warming; the guest grinder was dialled in just now and holds;
 * the others are due; and after closing somebody turned the house grinder's collar and told nobody.
 */
function thisMorning(now: Date, before: readonly { fact: AnyFact }[], newId: (atMs: number) => string): DatedFact[] {
  const guest = demoId('grinder Guest');
  const house = demoId('grinder House');
  const facts = before.map(({ fact }) => fact);
  const known = new Map([[guest, facts.filter((fact) => fact.grinderId === guest)]]);
  const startMs = dayjs(now).subtract(GUEST_MIN_AGO, 'minute').valueOf();
  const dialled = play({ grinder: 'Guest', group: '2', daysAgo: 0, atMin: 0, by: 'Ines' }, startMs, known, newId);
  const lock = facts.findLast((fact) => fact.grinderId === house && fact.kind === 'lock');
  const from = lock?.kind === 'lock' ? lock.body.setting : 30;
  const at = dayjs(now).subtract(MOVED_HOURS_AGO, 'hour');
  const moved: AnyFact = {
    id: newId(at.valueOf()),
    kind: 'collarMove',
    at: at.toISOString(),
    grinderId: house,
    groupId: null,
    body: { from, to: from + MOVED_MARKS, advisedTo: null },
  };
  const ines = demoId('person Ines');
  const ago = (minutes: number): number => dayjs(now).subtract(minutes, 'minute').valueOf();
  const [fern, moss] = [demoId('machine Fern'), demoId('machine Moss')];
  return [
    { fact: stepAt(newId, ago(FERN_MIN_AGO.on), fern, 'switchedOn', null), personId: ines },
    { fact: stepAt(newId, ago(FERN_MIN_AGO.hot), fern, 'hot', STEAM_BAR), personId: ines },
    { fact: stepAt(newId, ago(MOSS_MIN_AGO), moss, 'switchedOn', null), personId: demoId('person Noor') },
    { fact: moved, personId: demoId('person Tobin') },
    ...dialled.map((fact) => ({ fact, personId: ines })),
  ];
}
