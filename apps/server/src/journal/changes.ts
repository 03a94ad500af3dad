import type { Changes } from '@tempera/contract/changes';
import type { DataSource } from 'typeorm';

const PAGE = 50;

type Row = Omit<Changes['changes'][number], 'at'> & { at: Date };

/** Newest of one source first, older than a moment; each source by its own index. */
const newest = (select: string, at: string): string => `(${select} AND ${at} < $2 ORDER BY ${at} DESC LIMIT $3)`;

/** What was changed of the house, and what happened at its doors, newest first, a page at a time. */
export async function changesBefore(db: DataSource, siteId: string, before: string | undefined): Promise<Changes> {
  const rows = await db.query<Row[]>(
    `SELECT c.id, c.at, c.what, p.name AS by, c.about, c.about_id AS "aboutId", c.version, c.retired, c.reason, c.address
       FROM (
        ${newest(
          `SELECT a.id, a.at, a.what, a.by_id, w.name AS about, a.about_id, NULL::int AS version, false AS retired,
                  NULL::text AS reason, a.address
             FROM audit a JOIN person w ON w.id = a.about_id WHERE a.site_id = $1`,
          'a.at',
        )}
        UNION ALL ${newest(
          `SELECT v.id, v.changed_at, v.kind, v.changed_by,
                  concat_ws(', ', coalesce(v.sheet->>'name', v.sheet->>'label'), v.sheet->>'role'),
                  v.subject_id, v.revision, v.retired, NULL, NULL
             FROM sheet_version v WHERE v.site_id = $1`,
          'v.changed_at',
        )}
        UNION ALL ${newest(
          `SELECT r.id, r.written_at, 'recipe', r.approved_by, r.name, r.recipe_id, r.version, r.retired, r.reason, NULL
             FROM recipe_version r WHERE r.site_id = $1`,
          'r.written_at',
        )}
        UNION ALL ${newest(
          `SELECT o.id, o.changed_at, 'policies', o.person_id, '', NULL::uuid, o.version, false, o.reason, NULL
             FROM policy_version o WHERE o.site_id = $1`,
          'o.changed_at',
        )}
       ) c LEFT JOIN person p ON p.id = c.by_id
      ORDER BY c.at DESC LIMIT $3`,
    [siteId, before ?? 'infinity', PAGE + 1],
  );
  const page = rows.slice(0, PAGE).map(({ at, ...row }) => ({ ...row, at: at.toISOString() }));
  return { changes: page, nextBefore: rows.length > PAGE ? (page.at(-1)?.at ?? null) : null };
}
