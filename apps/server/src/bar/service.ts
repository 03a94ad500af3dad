import { MS_PER_DAY } from '@tempera/core/numbers';
import type { Bar, BasketSheet, Grinder, Place, WaitingGrinder } from '@tempera/contract/bar';
import type { CoffeeSheet } from '@tempera/contract/coffee';
import type { RecipeVersion } from '@tempera/contract/house';
import { policyOf, usualHouse } from '@tempera/contract/policy';
import type { RecordedFact } from '@tempera/contract/journal';
import { grinderOf } from '@tempera/contract/station';
import type { MemoryContext } from '@tempera/core/calibration';
import { ofKind, standingFacts } from '@tempera/core/facts';
import { businessDay, momentOf } from '@tempera/core/house';
import type { DataSource } from 'typeorm';
import { memoryUpTo } from '../calibration/index.ts';
import { bagsPast, CoffeeEntity } from '../coffee/index.ts';
import { policyVersions, recipesInForce, recipeTargets, recipeVersions, untilHouseChanges } from '../house/index.ts';
import { benchFacts, stepsSince } from '../journal/index.ts';
import { SiteEntity } from '../team/index.ts';
import {
  BasketEntity,
  CounterEntity,
  FixtureEntity,
  GrinderEntity,
  GroupEntity,
  MachineEntity,
  type GrinderRow,
} from './entities.ts';

const placeOf = ({ xCm, yCm, widthCm, depthCm }: Place): Place => ({ xCm, yCm, widthCm, depthCm });

/** Everything of the house book that makes up the bar on a day. */
const barSheets = untilHouseChanges(async (db, siteId, today) => {
  const inUse = { siteId, retired: false } as const;
  const [counters, machines, groups, grinders, fixtures, coffees, baskets, recipes, [policy], context] =
    await Promise.all([
      db.getRepository(CounterEntity).find({ where: inUse, order: { yCm: 'ASC' } }),
      db.getRepository(MachineEntity).find({ where: inUse, order: { name: 'ASC' } }),
      db.getRepository(GroupEntity).find({ where: inUse, order: { position: 'ASC' } }),
      db.getRepository(GrinderEntity).find({ where: inUse, order: { yCm: 'ASC', xCm: 'ASC' } }),
      db.getRepository(FixtureEntity).find({ where: inUse, order: { name: 'ASC' } }),
      db.getRepository(CoffeeEntity).findBy({ siteId }),
      db.getRepository(BasketEntity).findBy({ siteId }),
      recipesInForce(db, siteId, today),
      policyVersions(db, siteId),
      memoryContext(db, siteId),
    ]);
  return { counters, machines, groups, grinders, fixtures, coffees, baskets, recipes, policy, context };
});

/** The bar of a café as it stands, with the facts that tell how each grinder stands. */
export async function readBar(db: DataSource, siteId: string): Promise<Bar> {
  const site = await db.getRepository(SiteEntity).findOneByOrFail({ id: siteId });
  const today = businessDay(Date.now(), site.timeZone, site.dayStartsMin);
  const dayMs = momentOf(today, site.dayStartsMin, site.timeZone);
  const sheets = barSheets(db, siteId, today);
  const [{ counters, machines, groups, grinders, fixtures, coffees, baskets, recipes, policy }, facts, steps, memory] =
    await Promise.all([
      sheets,
      benchFacts(db, siteId, { grinderId: null, fromMs: dayMs, traces: false }),
      stepsSince(db, siteId, Date.now() - MS_PER_DAY),
      sheets.then(({ context }) => memoryUpTo(db, siteId, context, dayMs)),
    ]);
  const bags = bagsHeld(facts);
  const past = await bagsPast(
    db,
    site,
    [...bags.values()].filter((bagId) => bagId !== null),
    Date.now(),
  );
  const coffeeById = new Map(coffees.map((coffee) => [coffee.id, coffee]));
  const held = coffeesHeld(facts);
  const hoppers = grinders.map((grinder) => {
    const coffee = coffeeById.get(held.get(grinder.id) ?? grinder.firstCoffeeId ?? '') ?? null;
    const inForce = (recipeId: string | null | undefined): RecipeVersion | null =>
      recipes.find((recipe) => recipe.recipeId === recipeId) ?? null;
    const others = (coffee?.moreRecipes ?? []).flatMap(({ recipeId }) => inForce(recipeId) ?? []);
    return { grinder, coffee, recipe: inForce(coffee?.recipeId), others };
  });
  return {
    room: { widthCm: site.roomWidthCm, depthCm: site.roomDepthCm },
    planRevision: site.planRevision,
    counters: counters.map(({ id, name, faces, ...counter }) => ({ id, name, faces, place: placeOf(counter) })),
    house: policyOf(policy ?? usualHouse),
    machines: machines.map(({ id, name, lever, setsTemp, ...machine }) => ({
      id,
      name,
      lever,
      setsTemp,
      place: placeOf(machine),
      groups: groups
        .filter((group) => group.machineId === id)
        .map(({ id: groupId, name: groupName, machineId, position }) => ({
          id: groupId,
          name: groupName,
          machineId,
          position,
        })),
    })),
    grinders: hoppers.flatMap(({ grinder, coffee, recipe, others }) =>
      coffee && recipe
        ? [
            {
              ...readyGrinder(grinder, coffee),
              ...recipeHere(recipe, baskets),
              others: others.map((other) => recipeHere(other, baskets)),
              bagPast: past.has(bags.get(grinder.id) ?? ''),
            },
          ]
        : [],
    ),
    waiting: hoppers.flatMap(({ grinder, coffee, recipe }): WaitingGrinder[] =>
      coffee && recipe
        ? []
        : [{ id: grinder.id, name: grinder.name, place: placeOf(grinder), lacks: coffee ? 'recipe' : 'coffee' }],
    ),
    fixtures: fixtures.map(({ id, kind, name, ...fixture }) => ({ id, kind, name, place: placeOf(fixture) })),
    facts,
    steps,
    memory: { upTo: new Date(memory.upToMs).toISOString(), state: memory.state },
    recipesNamed: await recipesNamed(db, siteId, facts, recipes),
  };
}

/** Versions of recipes that these facts name and that are not in force any more. */
async function recipesNamed(
  db: DataSource,
  siteId: string,
  facts: readonly RecordedFact[],
  inForce: readonly RecipeVersion[],
): Promise<RecipeVersion[]> {
  const known = new Set(inForce.map(({ id }) => id));
  const named = facts.flatMap((fact) => (fact.kind === 'shot' ? [fact.body.recipeVersionId] : []));
  const missing = [...new Set(named)].filter((id) => !known.has(id));
  return missing.length === 0 ? [] : recipeVersions(db, siteId, missing);
}

/** What the memory of a café's bar is heard with: every grinder that was ever there, and every recipe. */
async function memoryContext(db: DataSource, siteId: string): Promise<MemoryContext> {
  const [grinders, recipes] = await Promise.all([
    db.getRepository(GrinderEntity).findBy({ siteId }),
    recipeTargets(db, siteId),
  ]);
  return {
    grinders: new Map(grinders.map((grinder) => [grinder.id, grinderOf(grinder)])),
    recipeOf: (id) => recipes.get(id) ?? null,
  };
}

/** Which coffee each hopper holds, by the last bag that somebody put in and did not take back. */
function coffeesHeld(facts: readonly RecordedFact[]): Map<string, string> {
  const held = new Map<string, string>();
  for (const { grinderId, body } of ofKind(standingFacts(facts), 'newBag')) {
    if (body.coffeeId !== undefined) held.set(grinderId, body.coffeeId);
  }
  return held;
}

/** Which listed bag each hopper holds. */
function bagsHeld(facts: readonly RecordedFact[]): Map<string, string | null> {
  return new Map(
    ofKind(standingFacts(facts), 'newBag').map(({ grinderId, body }) => [grinderId, body.bagId ?? null] as const),
  );
}

function readyGrinder(
  row: GrinderRow,
  coffee: Pick<CoffeeSheet, 'name' | 'roast' | 'decaf'> & { id: string },
): Omit<Grinder, keyof Grinder['others'][number] | 'others' | 'bagPast'> {
  const { id, name, stepMarks, finer, dialMin, dialMax, seedSetting, secondsPerMark, retentionG, rateGps } = row;
  const { readsDial, unlocksFirst, doser } = row;
  return {
    id,
    name,
    place: placeOf(row),
    stepMarks,
    finer,
    dialMin,
    dialMax,
    seedSetting,
    secondsPerMark,
    retentionG,
    rateGps,
    coffee: coffee.name,
    coffeeId: coffee.id,
    roast: coffee.roast,
    decaf: coffee.decaf,
    readsDial,
    unlocksFirst,
    doser,
  };
}

/** A recipe with the basket that it is poured from. */
function recipeHere(
  recipe: RecipeVersion,
  baskets: readonly (BasketSheet & { id: string })[],
): Grinder['others'][number] {
  const basket = baskets.find(({ id }) => id === recipe.basketId) ?? null;
  return {
    recipe,
    dualWalled: basket?.wall === 'dual',
    basketG: basket && { min: basket.minG, max: basket.maxG },
    levelG: basket?.levelG ?? null,
    fillStepG: basket?.fillStepG ?? null,
  };
}
