import type { Bag, BagSheet, BagsQuery, Stock } from '@tempera/contract/coffee';
import type { Page } from '@tempera/contract/sheet';
import type { DataSource } from 'typeorm';
import { keptSheets } from '../kernel/sheets.ts';
import { coffeeTable } from './tables.ts';

interface BagRow {
  id: string;
  revision: number;
  retired: boolean;
  changedBy: string | null;
  changedAt: Date | null;
  coffeeId: string;
  coffee: string;
  roastedOn: string;
  weightG: number;
  freezes: BagSheet['freezes'];
  openedOn: string | null;
  finishedOn: string | null;
  portionOf: string | null;
  label: string;
  state: Bag['state'];
  openedAt: Date | null;
  grinderId: string | null;
}

const STATE = `CASE WHEN b.finished_on IS NOT NULL OR b.used_up THEN 'used' WHEN b.last_in_at IS NOT NULL THEN 'hopper'
              WHEN b.opened_on IS NOT NULL THEN 'open' ELSE 'closed' END`;

/**
 * Bags with what their facts tell: when one first went into a hopper, which hopper had it last, and whether another took its place
 * there since: then it is used up.
 */
const BAGS = `
  SELECT b.id, b.revision, b.retired, p.name AS "changedBy", b.changed_at AS "changedAt", b.coffee_id AS "coffeeId",
         c.name AS coffee, b.roasted_on::text AS "roastedOn", b.weight_g AS "weightG", b.freezes,
         b.opened_on::text AS "openedOn", b.finished_on::text AS "finishedOn", b.portion_of AS "portionOf", b.label,
         ${STATE} AS state,
         coalesce(b.first_in_at, b.opened_on::timestamp AT TIME ZONE s.time_zone) AS "openedAt",
         b.in_grinder_id AS "grinderId"
    FROM bag b JOIN coffee c ON c.id = b.coffee_id JOIN site s ON s.id = b.site_id
    LEFT JOIN person p ON p.id = b.changed_by
   WHERE b.site_id = $1 AND NOT b.retired`;

function toBag(row: BagRow): Bag {
  const { id, revision, retired, changedBy, changedAt, coffee, state, openedAt, grinderId, ...sheet } = row;
  return {
    id,
    revision,
    retired,
    changedBy,
    changedAt: changedAt?.toISOString() ?? null,
    coffee,
    state,
    openedAt: openedAt?.toISOString() ?? null,
    grinderId,
    sheet,
  };
}

/** Ways of sorting; an index in the same order serves the first. */
const sortColumns: Record<BagsQuery['sort'], string> = {
  roastedOn: 'b.roasted_on',
  coffee: 'lower(c.name)',
  weightG: 'b.weight_g',
  openedAt: '"openedAt"',
};
/** What may be unknown comes last either way. */
const UNKNOWN_LAST: readonly BagsQuery['sort'][] = ['openedAt'];

/** So many pages beyond the one that is asked for are counted: whoever looks for an older one searches. */
const PAGES_COUNTED_AHEAD = 20;

/** A page of the house's bags; the search looks at coffee and label. Only a page of them is put together. */
export async function bagPage(db: DataSource, siteId: string, query: BagsQuery): Promise<Page<Bag>> {
  const { search, sort, descending, page, perPage, state = null, coffeeId = null } = query;
  const pattern = search === '' ? null : `%${search.replace(/[\\%_]/g, '\\$&')}%`;
  const wanted = `($2::text IS NULL OR ${STATE} = $2) AND ($3::uuid IS NULL OR b.coffee_id = $3)
        AND ($4::text IS NULL OR c.name ILIKE $4 OR b.label ILIKE $4 OR b.roasted_on::text LIKE $4)`;
  const way = descending ? 'DESC' : 'ASC';
  const unknown = UNKNOWN_LAST.includes(sort) ? ' NULLS LAST' : '';
  const asked = [siteId, state, coffeeId, pattern];
  const [rows, [count]] = await Promise.all([
    db.query<BagRow[]>(
      `${BAGS} AND ${wanted} ORDER BY ${sortColumns[sort]} ${way}${unknown}, b.id ${way} LIMIT $5 OFFSET $6`,
      [...asked, perPage, (page - 1) * perPage],
    ),
    db.query<{ total: number }[]>(
      `SELECT count(*)::float8 AS total FROM (
         SELECT 1 FROM bag b JOIN coffee c ON c.id = b.coffee_id
          WHERE b.site_id = $1 AND NOT b.retired AND ${wanted} LIMIT $5) few`,
      [...asked, (page + PAGES_COUNTED_AHEAD) * perPage],
    ),
  ]);
  return { rows: rows.map(toBag), total: count?.total ?? 0 };
}

/** One bag. Null when it is not of this café. */
export async function oneBag(db: DataSource, siteId: string, bagId: string): Promise<Bag | null> {
  const [row] = await db.query<BagRow[]>(`${BAGS} AND b.id = $2`, [siteId, bagId]);
  return row ? toBag(row) : null;
}

/** Coffees, and the bags that are not used up. */
export async function readStock(db: DataSource, siteId: string): Promise<Stock> {
  const [coffees, bags] = await Promise.all([
    keptSheets(db, siteId, coffeeTable),
    db.query<BagRow[]>(`${BAGS} AND b.finished_on IS NULL AND NOT b.used_up`, [siteId]),
  ]);
  return { coffees, bags: bags.map(toBag) };
}
