import type { Search } from '@tempera/contract/search';
import type { DataSource } from 'typeorm';

const MOST_HITS = 20;

/** Recipes, coffees, drinks and people by a part of their name, in the order of the alphabet. */
export async function searchHouse(db: DataSource, siteId: string, q: string): Promise<Search['hits']> {
  const pattern = q.replace(/[\\%_]/g, '\\$&');
  return db.query<Search['hits']>(
    `SELECT kind, id, name FROM (
       SELECT DISTINCT ON (recipe_id) 'recipe' AS kind, recipe_id AS id, name, retired, site_id
         FROM recipe_version WHERE site_id = $1 ORDER BY recipe_id, version DESC) newest
      WHERE NOT retired AND name ILIKE '%' || $2 || '%'
     UNION ALL SELECT 'coffee', id, name FROM coffee WHERE site_id = $1 AND NOT retired AND name ILIKE '%' || $2 || '%'
     UNION ALL SELECT 'drink', id, name FROM drink WHERE site_id = $1 AND NOT retired AND name ILIKE '%' || $2 || '%'
     UNION ALL SELECT 'person', id, name FROM person WHERE site_id = $1 AND name ILIKE '%' || $2 || '%'
     ORDER BY 3 LIMIT $3`,
    [siteId, pattern, MOST_HITS],
  );
}
