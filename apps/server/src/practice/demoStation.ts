import type { AnyFact } from '@tempera/core/facts';
import { simulateMorning, simulateService } from '@tempera/core/practice';
import { demoId, grinders, site } from './demoBar.ts';
import { coffees, HOUSE_CHANGED_DAYS_AGO, policy, recipes } from './demoHouse.ts';

/** What is played at one grinder of the demo: dialled in, or a customer's shot timed. */

/** One grinder dialled in, or checked, on one group. */
export interface Job {
  grinder: string;
  group: string;
  daysAgo: number;
  atMin: number;
  by: string;
}

export const crew = ['Ines', 'Tobin', 'Noor'] as const;

/** Mornings: every grinder. Afternoons: a check of the house and the guest grinder, on another group each day. */
export function jobsOf(daysAgo: number): Job[] {
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

/** Hands differ: a firmer tamp is a slower shot. */
const HANDS_LN: Record<string, number> = { Ines: 0, Tobin: 0.03, Noor: -0.015 };
const handsLn = (personId: string): number =>
  Object.entries(HANDS_LN).find(([name]) => demoId(`person ${name}`) === personId)?.[1] ?? 0;

/** Timed in service, between the morning and the noon, and after it. */
export function servedOf(daysAgo: number): Job[] {
  const by = (i: number): string => crew[(daysAgo + i) % crew.length] ?? 'Ines';
  const timed = (grinder: string, group: string, minutes: readonly number[]): Job[] =>
    minutes.map((atMin, i) => ({ grinder, group, daysAgo, atMin, by: by(i) }));
  return [...timed('House', '1', [470, 545, 640, 730, 830, 950]), ...timed('Guest', '2', [500, 620, 760, 910])];
}

export function timeOne(
  job: Job,
  atMs: number,
  known: Map<string, AnyFact[]>,
  newId: (atMs: number) => string,
): AnyFact[] {
  const set = stationOf(job);
  if (!set) return [];
  const timed = [{ atMs, personId: demoId(`person ${job.by}`) }];
  return simulateService({ ...set, newId, timed, handsLn }, known.get(set.station.grinder.id) ?? []);
}

export function play(
  job: Job,
  startMs: number,
  known: Map<string, AnyFact[]>,
  newId: (atMs: number) => string,
): AnyFact[] {
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
export function stationOf(job: Pick<Job, 'grinder' | 'group' | 'daysAgo'>) {
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
