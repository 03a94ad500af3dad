import { MINUTES_PER_DAY } from '@tempera/core/numbers';
import type { CoffeeUse } from '@tempera/contract/coffee';
import { calibrationByDay, throughputByDay, useByDay, type HopperBag, type OpenDay } from '@tempera/core/coffee';
import { addDays, businessDay, momentOf } from '@tempera/core/house';
import { standingFacts, type Entry } from '@tempera/core/facts';
import type { DataSource } from 'typeorm';
import { notWithdrawn } from '../journal/index.ts';
import { SiteEntity, type SiteRow } from '../team/index.ts';

/** As many days as a page shows and a pace is read from. */
const DAYS_SHOWN = 28;
const DAYS_OF_PACE = 14;
const G_PER_KG = 1_000;

interface BagIn extends HopperBag {
  coffeeId: string;
  pricePerKg: number | null;
}

/** Calibration against served, in grams and money, and the pace of each coffee. */
export async function coffeeUse(db: DataSource, siteId: string, nowMs = Date.now()): Promise<CoffeeUse> {
  const site = await db.getRepository(SiteEntity).findOneByOrFail({ id: siteId });
  const today = businessDay(nowMs, site.timeZone, site.dayStartsMin);
  const days = openDays(site, today, nowMs);
  const since = days[0]?.fromMs ?? nowMs;
  const [facts, bags] = await Promise.all([factsThatCost(db, siteId, since), bagsIn(db, siteId, since)]);
  const dayOf = (atMs: number): string => businessDay(atMs, site.timeZone, site.dayStartsMin);
  const shownDays = new Set(days.map(({ day }) => day));
  const through = throughputByDay(bags, days);
  const used = useByDay(calibrationByDay(standingFacts(facts), dayOf), through).filter(({ day }) => shownDays.has(day));
  const worked = days
    .map(({ day }) => day)
    .filter((day) => day !== today)
    .slice(-DAYS_OF_PACE);
  const priceOf = (grinderId: string, day: string): number | null =>
    bags.findLast((bag) => bag.grinderId === grinderId && dayOf(bag.atMs) <= day)?.pricePerKg ?? null;
  return {
    currency: site.currency,
    days: used.map((entry) => {
      const price = priceOf(entry.grinderId, entry.day);
      return { ...entry, calibrationCost: price === null ? null : (price * entry.calibrationG) / G_PER_KG };
    }),
    daily: dailyByCoffee(bags, days, worked),
  };
}

/** The last business days, each with the hours that it was open; today until now. */
function openDays({ timeZone, opensMin, closesMin }: SiteRow, today: string, nowMs: number): OpenDay[] {
  const lastsMin = closesMin > opensMin ? closesMin : closesMin + MINUTES_PER_DAY;
  return Array.from({ length: DAYS_SHOWN }, (_, i) => addDays(today, i + 1 - DAYS_SHOWN)).map((day) => {
    const fromMs = momentOf(day, opensMin, timeZone);
    return { day, fromMs, toMs: Math.min(nowMs, fromMs + (lastsMin - opensMin) * 60_000) };
  });
}

/** Grams of each coffee on each working day, by the bags that went into the hoppers. */
function dailyByCoffee(
  bags: readonly BagIn[],
  days: readonly OpenDay[],
  worked: readonly string[],
): CoffeeUse['daily'] {
  const coffees = [...new Set(bags.map(({ coffeeId }) => coffeeId))];
  return coffees.map((coffeeId) => {
    const own = throughputByDay(
      bags.filter((bag) => bag.coffeeId === coffeeId),
      days,
    );
    const gramsOn = (day: string): number =>
      own.filter((entry) => entry.day === day).reduce((sum, entry) => sum + entry.grams, 0);
    return { coffeeId, grams: worked.map(gramsOn).filter((grams) => grams > 0) };
  });
}

/** Facts that cost coffee, and what corrects them. */
async function factsThatCost(db: DataSource, siteId: string, sinceMs: number): Promise<Entry[]> {
  const rows = await db.query<(Omit<Entry, 'at'> & { at: Date })[]>(
    `SELECT id, kind, LEAST(at, received_at) AS at, person_id AS "personId", grinder_id AS "grinderId",
            group_id AS "groupId", body - 'trace' AS body
       FROM fact
      WHERE site_id = $1 AND at >= $2
        AND (kind IN ('dose', 'shot', 'purge', 'correction')
             OR (kind = 'step' AND body->>'step' IN ('doseTime', 'takenBack')))`,
    [siteId, new Date(sinceMs)],
  );
  return rows.map((row) => ({ ...row, at: row.at.toISOString() }) as Entry);
}

/** Bags that went into hoppers, and the one that was in each before. */
async function bagsIn(db: DataSource, siteId: string, sinceMs: number): Promise<BagIn[]> {
  const rows = await db.query<(Omit<BagIn, 'atMs'> & { at: Date })[]>(
    `SELECT f.grinder_id AS "grinderId", f.at, b.weight_g AS "weightG", b.coffee_id AS "coffeeId",
            c.price_per_kg AS "pricePerKg"
       FROM fact f JOIN bag b ON b.id::text = f.body->>'bagId' JOIN coffee c ON c.id = b.coffee_id
      WHERE f.site_id = $1 AND f.kind = 'newBag'
        AND f.at >= coalesce((SELECT max(e.at) FROM fact e WHERE e.grinder_id = f.grinder_id AND e.kind = 'newBag'
                                AND e.at < $2), $2)
        AND ${notWithdrawn('f')}
      ORDER BY f.at, f.seq`,
    [siteId, new Date(sinceMs)],
  );
  return rows.map(({ at, ...row }) => ({ ...row, atMs: at.getTime() }));
}
