import type { DataSource } from 'typeorm';
import type { FactPlace, Stand } from '../kernel/toldFacts.ts';

/** Where each of these cafés stands. */
export async function standsOf(db: DataSource, siteIds: readonly string[]): Promise<Stand[]> {
  const rows = await db.query<{ siteId: string; seq: number; receivedAt: Date | null; houseAt: Date | null }[]>(
    `SELECT s.id AS "siteId", coalesce(f.seq, 0)::float8 AS seq, f.received_at AS "receivedAt", s.house_changed_at AS "houseAt"
       FROM site s
       LEFT JOIN LATERAL (SELECT seq, received_at FROM fact WHERE site_id = s.id ORDER BY seq DESC LIMIT 1) f ON true
      WHERE s.id = ANY($1)`,
    [siteIds],
  );
  return rows.map(({ siteId, seq, receivedAt, houseAt }) => {
    const times = [receivedAt, houseAt].flatMap((at) => (at === null ? [] : [at.getTime()]));
    return { siteId, seq, newsMs: times.length > 0 ? Math.max(...times) : null, houseMs: houseAt?.getTime() ?? null };
  });
}

/**
 * Facts after a place of each café's own, in their order, by their places alone.
 * @param most of each café
 */
export async function placesAfter(
  db: DataSource,
  asked: readonly { siteId: string; afterSeq: number }[],
  most: number,
): Promise<FactPlace[]> {
  return db.query<FactPlace[]>(
    `SELECT f.site_id AS "siteId", f.id, f.seq::float8 AS seq, f.received_at AS "receivedAt"
       FROM unnest($1::uuid[], $2::bigint[]) AS asked (site_id, after_seq)
       CROSS JOIN LATERAL (SELECT * FROM fact WHERE site_id = asked.site_id AND seq > asked.after_seq
                            ORDER BY seq LIMIT $3) f
      ORDER BY f.seq`,
    [asked.map(({ siteId }) => siteId), asked.map(({ afterSeq }) => afterSeq), most],
  );
}
