import type { AnyFact, StepFact } from '@tempera/core/facts';
import type { EntityManager } from 'typeorm';
import { packedBody } from './traces.ts';

const BATCH = 1_000;

/** Writes facts that happened elsewhere, a thousand at a time. */
export async function loadFacts(
  tx: EntityManager,
  siteId: string,
  facts: readonly (AnyFact | StepFact)[],
): Promise<void> {
  for (let start = 0; start < facts.length; start += BATCH) {
    const rows = facts.slice(start, start + BATCH).map((fact) => ({ ...fact, body: packedBody(fact.body) }));
    await tx.query(
      `INSERT INTO fact (id, site_id, kind, at, received_at, person_id, grinder_id, group_id, body)
       SELECT f.id, $1, f.kind, f.at, f.at, f."personId", f."grinderId", f."groupId", f.body
         FROM jsonb_to_recordset($2::jsonb)
           AS f (id uuid, kind text, at timestamptz, "personId" uuid, "grinderId" uuid, "groupId" uuid, body jsonb)
        ORDER BY f.at, f.id`,
      [siteId, JSON.stringify(rows)],
    );
  }
}
