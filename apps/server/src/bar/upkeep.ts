import type { Upkeep } from '@tempera/contract/bar';
import type { CoffeeUse } from '@tempera/contract/coffee';
import { litresDrawn } from '@tempera/core/bar';
import { standingFacts, stepsOf, type StepFact, type UpkeepKind } from '@tempera/core/facts';
import { businessDay, daysBetween } from '@tempera/core/house';
import type { DataSource } from 'typeorm';
import { mean } from '@tempera/core/numbers';
import { CoffeeEntity, coffeeUse } from '../coffee/index.ts';
import { recipesInForce } from '../house/index.ts';
import { SiteEntity } from '../team/index.ts';
import { burrKg } from './burrs.ts';
import { entryColumns, takesBack } from '../journal/index.ts';
import { GrinderEntity, GroupEntity, MachineEntity } from './entities.ts';

const G_PER_KG = 1_000;

/** Everything that is kept up: its rule, when it was last done, and what went through since. */
export async function upkeepOf(db: DataSource, siteId: string, nowMs = Date.now()): Promise<Upkeep> {
  const [site, machines, groups, grinders, done, kg, used, coffees] = await Promise.all([
    db.getRepository(SiteEntity).findOneByOrFail({ id: siteId }),
    db.getRepository(MachineEntity).findBy({ siteId, retired: false }),
    db.getRepository(GroupEntity).findBy({ siteId, retired: false }),
    db.getRepository(GrinderEntity).findBy({ siteId, retired: false }),
    upkept(db, siteId),
    burrKg(db, siteId),
    coffeeUse(db, siteId, nowMs),
    db.getRepository(CoffeeEntity).findBy({ siteId }),
  ]);
  const dayOf = (atMs: number): string => businessDay(atMs, site.timeZone, site.dayStartsMin);
  const today = dayOf(nowMs);
  const paceG = new Map(used.hoppers.map(({ grinderId, paceGPerDay }) => [grinderId, paceGPerDay]));
  const litresADay = waterOfTheBar(used, coffees, await recipesInForce(db, siteId, today));
  const shareOf = (machineId: string): number =>
    groups.length === 0 ? 0 : groups.filter((group) => group.machineId === machineId).length / groups.length;
  const doneOf = (what: UpkeepKind, stationId: string, stated: string | null) => {
    const times = done.get(`${what} ${stationId}`) ?? [];
    const told = times.map(({ atMs }) => dayOf(atMs));
    const lastOn = [...told, ...(stated === null ? [] : [stated])].toSorted().at(-1) ?? null;
    return {
      lastOn,
      lastBy: lastOn === told.at(-1) ? (times.at(-1)?.by ?? null) : null,
      gapsDays: told.slice(1).map((day, i) => daysBetween(told[i] ?? day, day)),
    };
  };
  const ofMachine = machines.flatMap(({ id, upkeep }) =>
    upkeep.map(({ what, months, litres, lastOn }) => {
      const told = doneOf(what, id, lastOn);
      const perDay = litres === null ? null : litresADay * shareOf(id);
      const counted = perDay === null || told.lastOn === null ? null : perDay * daysBetween(told.lastOn, today);
      return { what, stationId: id, months, count: litres, counted, perDay, ...told };
    }),
  );
  const ofGrinder = grinders
    .filter(({ burrLifeKg }) => burrLifeKg !== null)
    .map(({ id, burrLifeKg }) => ({
      what: 'burrs' as const,
      stationId: id,
      months: null,
      count: burrLifeKg,
      counted: kg.get(id) ?? null,
      perDay: (paceG.get(id) ?? 0) / G_PER_KG,
      // The day on which the kilograms were counted is not the day on which they were fitted.
      ...doneOf('burrs', id, null),
    }));
  return { items: [...ofMachine, ...ofGrinder] };
}

/** Litres of a day of late, by what each coffee's own recipe draws: a brewed cup takes many times the water of an espresso. */
function waterOfTheBar(
  used: CoffeeUse,
  coffees: readonly { id: string; recipeId: string | null }[],
  recipes: Awaited<ReturnType<typeof recipesInForce>>,
): number {
  return used.daily.reduce((sum, { coffeeId, grams }) => {
    const recipeId = coffees.find(({ id }) => id === coffeeId)?.recipeId;
    const recipe = recipes.find((one) => one.recipeId === recipeId);
    return recipe && grams.length > 0 ? sum + litresDrawn(mean(grams), recipe) : sum;
  }, 0);
}

interface Done {
  atMs: number;
  by: string;
}

/** When each thing was kept up and by whom, oldest first, by what and where. */
async function upkept(db: DataSource, siteId: string): Promise<Map<string, Done[]>> {
  const [rows, people] = await Promise.all([
    db.query<StepFact[]>(
      `WITH done AS (SELECT * FROM fact WHERE site_id = $1 AND kind = 'step' AND body->>'step' = 'upkept')
     SELECT ${entryColumns('done')} FROM done
     UNION ALL
     SELECT ${entryColumns('f')}
       FROM fact f WHERE f.site_id = $1 AND ${takesBack('f')} AND f.body->>'takesBack' = ANY (ARRAY(SELECT id::text FROM done))`,
      [siteId],
    ),
    db.query<{ id: string; name: string }[]>('SELECT id, name FROM person WHERE site_id = $1', [siteId]),
  ]);
  const names = new Map(people.map(({ id, name }) => [id, name]));
  const times = new Map<string, Done[]>();
  for (const { at, personId, body } of stepsOf(standingFacts(rows), 'upkept')) {
    const key = `${body.what} ${body.stationId}`;
    const by = body.by === '' ? (names.get(personId) ?? '') : body.by;
    times.set(key, [...(times.get(key) ?? []), { atMs: Date.parse(at), by }]);
  }
  return times;
}
