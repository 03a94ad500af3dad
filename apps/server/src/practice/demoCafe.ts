import { addDays, businessDay, momentOf } from '@tempera/core/house';
import type { DataSource, EntityManager } from 'typeorm';
import { BasketEntity, CounterEntity, FixtureEntity, GrinderEntity, GroupEntity, MachineEntity } from '../bar/index.ts';
import { BagEntity, CoffeeEntity } from '../coffee/index.ts';
import { DrinkEntity, PolicyVersionEntity, RecipeVersionEntity } from '../house/index.ts';
import { loadFacts } from '../journal/index.ts';
import type { DemoMoment } from '../kernel/config.ts';
import { hashPin, PersonEntity, SiteEntity } from '../team/index.ts';
import { bagRows, bagsUsed } from './demoBags.ts';
import * as cafe from './demoBar.ts';
import * as house from './demoHouse.ts';
import { demoHours } from './demoHours.ts';
import { demoHistory, HISTORY_DAYS } from './demoHistory.ts';

const { demoId, site } = cafe;

/** Loads the demo café into an empty database; does nothing where it already is. */
export async function loadDemoCafe(db: DataSource, moment: DemoMoment = 'opening', now = new Date()): Promise<void> {
  if (await db.getRepository(SiteEntity).existsBy({ id: site.id })) return;
  const pinHashes = await Promise.all(cafe.people.map(({ pin }) => hashPin(pin)));
  const hours = demoHours(moment, now);
  const today = businessDay(now.getTime(), site.timeZone, hours.dayStartsMin);
  await db.transaction(async (tx) => {
    const history = demoHistory(now, today, moment);
    const foundedAt = new Date(momentOf(addDays(today, -HISTORY_DAYS), 0, site.timeZone));
    await tx.insert(SiteEntity, { ...site, ...hours, foundedAt });
    await tx.insert(
      PersonEntity,
      cafe.people.map(({ name, role, signedOff = [] }, i) => ({
        id: demoId(`person ${name}`),
        siteId: site.id,
        name,
        role,
        pinHash: pinHashes[i] ?? '',
        failedAttempts: 0,
        waitUntil: null,
        signOffs: signedOff.map(({ skill, daysAgo, lapsesInDays }) => ({
          skill,
          on: addDays(today, -daysAgo),
          until: lapsesInDays === null ? null : addDays(today, lapsesInDays),
          by: demoId('person Ines'),
        })),
      })),
    );
    await loadHouse(tx, today);
    await tx.insert(BagEntity, bagRows(bagsUsed(HISTORY_DAYS, moment === 'opening' ? 1 : 0), today));
    await loadFacts(
      tx,
      site.id,
      // What lies ahead of the demo's first start has not happened yet.
      history.filter(({ at }) => Date.parse(at) <= now.getTime()),
    );
  });
}

const BURR_LIFE_KG = 650;

/** What is kept up at a machine: the second one's filter falls due this week. */
const upkeepOf = (today: string, machine: number) => [
  { what: 'filter' as const, months: 6, litres: 6_000, lastOn: addDays(today, machine === 0 ? -190 : -179) },
  { what: 'gaskets' as const, months: 12, litres: null, lastOn: addDays(today, -200 - 90 * machine) },
  { what: 'screens' as const, months: 6, litres: null, lastOn: addDays(today, -60 - 30 * machine) },
  { what: 'descaling' as const, months: 24, litres: null, lastOn: addDays(today, -300) },
  { what: 'service' as const, months: 12, litres: null, lastOn: addDays(today, -110 - 40 * machine) },
];

async function loadHouse(tx: EntityManager, today: string): Promise<void> {
  const changedOn = addDays(today, -house.HOUSE_CHANGED_DAYS_AGO);
  await tx.insert(BasketEntity, cafe.baskets);
  await tx.insert(
    RecipeVersionEntity,
    house.recipes.map((recipe) =>
      recipe.version === 1
        ? recipe
        : { ...recipe, validFrom: changedOn, writtenAt: new Date(momentOf(changedOn, 600, site.timeZone)) },
    ),
  );
  await tx.insert(PolicyVersionEntity, house.policy);
  await tx.insert(CoffeeEntity, house.coffees);
  await tx.insert(DrinkEntity, house.drinks);
  await tx.insert(CounterEntity, cafe.counters);
  await tx.insert(
    MachineEntity,
    cafe.machines.map(({ row }, i) => ({
      ...row,
      upkeep: upkeepOf(today, i),
    })),
  );
  await tx.insert(
    GroupEntity,
    cafe.groups.map((group) => ({ ...group, cleanedOn: addDays(today, -1) })),
  );
  await tx.insert(
    GrinderEntity,
    cafe.grinders.map((grinder) => ({ ...grinder, burrsOn: addDays(today, -HISTORY_DAYS), burrLifeKg: BURR_LIFE_KG })),
  );
  await tx.insert(FixtureEntity, cafe.fixtures);
}
