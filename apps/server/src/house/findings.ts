import { crossChecks, type Finding } from '@tempera/core/house';
import type { DataSource } from 'typeorm';
import { recipesInForce, todayAt } from './inForce.ts';

/** Everything in the house that does not go together, on the recipes that are in force today. */
export async function findingsOf(db: DataSource, siteId: string): Promise<Finding[]> {
  const inUse = <T extends object>(sql: string): Promise<T[]> =>
    db.query<T[]>(`${sql} WHERE site_id = $1 AND NOT retired ORDER BY name`, [siteId]);
  const [recipes, site, baskets, coffees, groups, grinders] = await Promise.all([
    recipesInForce(db, siteId, await todayAt(db, siteId)),
    db.query<{ altitudeM: number }[]>('SELECT altitude_m AS "altitudeM" FROM site WHERE id = $1', [siteId]),
    inUse<{ id: string; name: string; minG: number; maxG: number }>(
      'SELECT id, name, min_g AS "minG", max_g AS "maxG" FROM basket',
    ),
    inUse<{ id: string; name: string; recipeId: string | null }>(
      'SELECT id, name, recipe_id AS "recipeId" FROM coffee',
    ),
    inUse<{ id: string; name: string; basketId: string | null }>(
      'SELECT id, name, basket_id AS "basketId" FROM group_head',
    ),
    inUse<{ id: string; name: string; coffeeId: string | null }>(
      `SELECT id, name, coalesce((${LAST_COFFEE}), first_coffee_id) AS "coffeeId" FROM grinder g`,
    ),
  ]);
  return crossChecks({ altitudeM: site[0]?.altitudeM ?? 0, recipes, baskets, coffees, groups, grinders });
}

/** The coffee of the last bag that went into the hopper and was not withdrawn. */
const LAST_COFFEE = `
  SELECT (f.body->>'coffeeId')::uuid FROM fact f
   WHERE f.grinder_id = g.id AND f.kind = 'newBag' AND f.body ? 'coffeeId'
     AND NOT EXISTS (SELECT 1 FROM fact c WHERE c.kind = 'correction' AND c.body->>'factId' = f.id::text
                        AND (c.body->>'withdrawn')::boolean)
   ORDER BY f.at DESC, f.seq DESC LIMIT 1`;
