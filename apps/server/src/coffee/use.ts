import type { CoffeeUse } from '@tempera/contract/coffee';
import {
  calibrationByDay,
  hoppersLeft,
  throughputByDay,
  useByDay,
  type HopperBag,
  type OpenDay,
  type TubWeighed,
} from '@tempera/core/coffee';
import { MS_PER_HOUR } from '@tempera/core/numbers';
import { addDays, businessDay, openSpan } from '@tempera/core/house';
import { standingFacts, stepsOf, type Entry, type StepFact } from '@tempera/core/facts';
import type { DataSource } from 'typeorm';
import { entryColumns, notWithdrawn } from '../journal/index.ts';
import { SiteEntity, type SiteRow } from '../team/index.ts';

/** As many days as a page shows and a pace is read from. */
const DAYS_SHOWN = 28;
const DAYS_OF_PACE = 14;
const G_PER_KG = 1_000;
/** More bags than go through a hopper in the days that are shown. */
const MOST_BAGS_A_HOPPER = 400;

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
  const [facts, bags, tubs] = await Promise.all([
    factsThatCost(db, siteId, since),
    bagsIn(db, siteId, since),
    tubsWeighed(db, siteId, since),
  ]);
  const dayOf = (atMs: number): string => businessDay(atMs, site.timeZone, site.dayStartsMin);
  const shownDays = new Set(days.map(({ day }) => day));
  const through = throughputByDay(bags, days, tubs);
  const used = useByDay(calibrationByDay(standingFacts(facts), dayOf), through).filter(({ day }) => shownDays.has(day));
  const worked = days
    .map(({ day }) => day)
    .filter((day) => day !== today)
    .slice(-DAYS_OF_PACE);
  const bagDays = bags.map(({ grinderId, atMs, pricePerKg }) => ({ grinderId, day: dayOf(atMs), pricePerKg }));
  const priceOf = (grinderId: string, day: string): number | null =>
    bagDays.findLast((bag) => bag.grinderId === grinderId && bag.day <= day)?.pricePerKg ?? null;
  return {
    currency: site.currency,
    days: used.map((entry) => {
      const price = priceOf(entry.grinderId, entry.day);
      return { ...entry, calibrationCost: price === null ? null : (price * entry.calibrationG) / G_PER_KG };
    }),
    hoppers: hoppersLeft(bags, days, tubs).map(({ grinderId, leftG, weighedAtMs, paceGPerHour }) => ({
      grinderId,
      leftG,
      weighedAt: weighedAtMs === null ? null : new Date(weighedAtMs).toISOString(),
      paceGPerDay: paceGPerHour * hoursADay(days),
    })),
    daily: dailyByCoffee(bags, days, tubs, worked),
  };
}

/** How long the house is open on a day of those that are over. */
function hoursADay(days: readonly OpenDay[]): number {
  const over = days.slice(0, -1);
  const openMs = over.reduce((sum, { fromMs, toMs }) => sum + Math.max(0, toMs - fromMs), 0);
  return over.length === 0 ? 0 : openMs / over.length / MS_PER_HOUR;
}

/** The last days on which the house was open, each with its hours; today until now. */
function openDays(site: SiteRow, today: string, nowMs: number): OpenDay[] {
  return Array.from({ length: DAYS_SHOWN }, (_, i) => addDays(today, i + 1 - DAYS_SHOWN)).flatMap((day) => {
    const span = openSpan(site, day);
    return span ? [{ day, fromMs: span.opensMs, toMs: Math.min(nowMs, span.closesMs) }] : [];
  });
}

/** Grams of each coffee on each working day, by the bags that went into the hoppers. */
function dailyByCoffee(
  bags: readonly BagIn[],
  days: readonly OpenDay[],
  tubs: readonly TubWeighed[],
  worked: readonly string[],
): CoffeeUse['daily'] {
  const coffees = [...new Set(bags.map(({ coffeeId }) => coffeeId))];
  return coffees.map((coffeeId) => {
    const own = throughputByDay(
      bags.filter((bag) => bag.coffeeId === coffeeId),
      days,
      tubs,
    );
    const gramsOn = (day: string): number =>
      own.filter((entry) => entry.day === day).reduce((sum, entry) => sum + entry.grams, 0);
    return { coffeeId, grams: worked.map(gramsOn).filter((grams) => grams > 0) };
  });
}

/** Facts that cost coffee, and what corrects them. */
async function factsThatCost(db: DataSource, siteId: string, sinceMs: number): Promise<Entry[]> {
  return db.query<Entry[]>(
    `SELECT ${entryColumns('f')} FROM fact f
      WHERE f.site_id = $1 AND f.at >= $2
        AND (f.kind IN ('dose', 'shot', 'purge', 'correction')
             OR (f.kind = 'step' AND f.body->>'step' IN ('doseTime', 'takenBack')))`,
    [siteId, new Date(sinceMs)],
  );
}

/** Bags that went into hoppers, and the one that was in each before. */
async function bagsIn(db: DataSource, siteId: string, sinceMs: number): Promise<BagIn[]> {
  const rows = await db.query<(Omit<BagIn, 'atMs'> & { at: Date })[]>(
    `SELECT f.grinder_id AS "grinderId", f.at, b.weight_g AS "weightG", b.coffee_id AS "coffeeId",
            c.price_per_kg AS "pricePerKg"
       FROM grinder g
       CROSS JOIN LATERAL (
         SELECT i.grinder_id, i.at, i.seq, (i.body->>'bagId')::uuid AS bag_id FROM fact i
          WHERE i.grinder_id = g.id AND i.kind = 'newBag' AND i.body ? 'bagId' AND ${notWithdrawn('i')}
            AND i.at >= coalesce((SELECT e.at FROM fact e WHERE e.grinder_id = g.id AND e.kind = 'newBag' AND e.at < $2
                                   ORDER BY e.at DESC LIMIT 1), $2)
          ORDER BY i.at DESC LIMIT ${MOST_BAGS_A_HOPPER}) f
       JOIN bag b ON b.id = f.bag_id JOIN coffee c ON c.id = b.coffee_id
      WHERE g.site_id = $1
      ORDER BY f.at, f.seq`,
    [siteId, new Date(sinceMs)],
  );
  return rows.map(({ at, ...row }) => ({ ...row, atMs: at.getTime() }));
}

/** Hoppers that were emptied into a tub and weighed, oldest first. */
async function tubsWeighed(db: DataSource, siteId: string, sinceMs: number): Promise<TubWeighed[]> {
  const rows = await db.query<StepFact[]>(
    `SELECT ${entryColumns('f')} FROM fact f
      WHERE f.site_id = $1 AND f.kind = 'step' AND f.at >= $2 AND f.body->>'step' IN ('hopperEmptied', 'takenBack')`,
    [siteId, new Date(sinceMs)],
  );
  return stepsOf(standingFacts(rows), 'hopperEmptied').flatMap(({ at, body: { grinderId, tubG } }) =>
    tubG === null ? [] : [{ grinderId, atMs: Date.parse(at), leftG: tubG }],
  );
}
