import type { DataSource } from 'typeorm';
import { takesBack } from '../journal/index.ts';

/**
 * Kilograms through the burrs of each grinder: what was written down, or nothing since new ones were fitted, and every bag that
 * went into the hopper since that day. Grinders of which nobody counted are left out.
 */
export async function burrKg(db: DataSource, siteId: string): Promise<Map<string, number>> {
  const rows = await db.query<{ id: string; kg: number }[]>(
    `WITH burrs AS (
       SELECT g.id, fitted.at AS fitted_at,
              CASE WHEN fitted.at IS NULL OR fitted.at::date < g.burrs_on THEN g.burr_kg ELSE 0 END AS kg,
              GREATEST(fitted.at, g.burrs_on) AS since
         FROM grinder g
         LEFT JOIN LATERAL (SELECT f.at FROM fact f
                             WHERE f.site_id = g.site_id AND f.kind = 'step' AND f.body->>'step' = 'upkept'
                               AND f.body->>'what' = 'burrs' AND f.body->>'stationId' = g.id::text
                               AND NOT EXISTS (SELECT 1 FROM fact t WHERE ${takesBack('t')} AND t.body->>'takesBack' = f.id::text)
                             ORDER BY f.at DESC LIMIT 1) fitted ON true
        WHERE g.site_id = $1)
     SELECT g.id, g.kg + coalesce(sum(b.weight_g) / 1000, 0) AS kg
       FROM burrs g
       LEFT JOIN bag b ON b.in_grinder_id = g.id AND b.first_in_at >= g.since
      WHERE g.kg IS NOT NULL GROUP BY g.id, g.kg`,
    [siteId],
  );
  return new Map(rows.map(({ id, kg }) => [id, kg]));
}
