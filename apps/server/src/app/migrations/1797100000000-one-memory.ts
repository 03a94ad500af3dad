import { isWithdrawn, standingOrder, type FactOf } from '@tempera/core/facts';
import type { MigrationInterface, QueryRunner } from 'typeorm';

/**
 * Facts say what the device's clock said; what was withdrawn and what the bar has taught are kept at hand, both made from
 * the facts and made again when they are dropped. Old facts keep their rows: for them the new columns are empty, and `at`
 * is what the device said.
 */
export class OneMemory1797100000000 implements MigrationInterface {
  readonly name = 'OneMemory1797100000000';

  async up(runner: QueryRunner): Promise<void> {
    for (const sql of [CLOCKS, WITHDRAWN, MEMORY, INDEXES]) await runner.query(sql);
    await noteWithdrawn(runner);
  }

  down(): Promise<void> {
    return Promise.reject(new Error('Migrations only go forward: restore a backup instead.'));
  }
}

const CLOCKS = `
ALTER TABLE fact ADD COLUMN device_at timestamp with time zone, ADD COLUMN skew_ms double precision, ADD COLUMN clock text,
  ADD CONSTRAINT fact_clock_ck CHECK (clock IN ('ahead', 'early'));
ALTER TABLE site ADD COLUMN founded_at timestamp with time zone;
`;

const WITHDRAWN = `
CREATE TABLE withdrawn (
  fact_id uuid NOT NULL, site_id uuid NOT NULL,
  CONSTRAINT withdrawn_pk PRIMARY KEY (fact_id),
  CONSTRAINT withdrawn_site_fk FOREIGN KEY (site_id) REFERENCES site(id)
);
`;

const MEMORY = `
CREATE TABLE bar_memory (
  site_id uuid NOT NULL, up_to timestamp with time zone NOT NULL, heard_seq double precision NOT NULL,
  engine integer NOT NULL, made_at timestamp with time zone NOT NULL DEFAULT now(), state jsonb NOT NULL,
  CONSTRAINT bar_memory_pk PRIMARY KEY (site_id, up_to),
  CONSTRAINT bar_memory_site_fk FOREIGN KEY (site_id) REFERENCES site(id)
);
`;

const INDEXES = `
CREATE INDEX fact_heard_ix ON fact (site_id, (LEAST(at, received_at)), id)
  WHERE kind IN ('shot', 'purge', 'collarMove', 'newBag', 'dose') OR (kind = 'step' AND body->>'step' = 'doseTime');
CREATE INDEX fact_takes_back_ix ON fact ((body->>'takesBack')) WHERE kind = 'step';
CREATE INDEX fact_traced_ix ON fact (group_id, at)
  WHERE kind = 'shot' AND jsonb_typeof(body->'trace') = 'object';
`;

/** What is withdrawn by now, as core reads the corrections. */
async function noteWithdrawn(runner: QueryRunner): Promise<void> {
  const rows = (await runner.query(
    `SELECT id, site_id AS "siteId", LEAST(at, received_at) AS at, body FROM fact WHERE kind = 'correction'`,
  )) as (Pick<FactOf<'correction'>, 'id' | 'body'> & { siteId: string; at: Date })[];
  const ofTarget = new Map<string, typeof rows>();
  for (const row of rows) ofTarget.set(row.body.factId, [...(ofTarget.get(row.body.factId) ?? []), row]);
  for (const [factId, corrections] of ofTarget) {
    const ordered = corrections.map((row) => ({ ...row, at: row.at.toISOString() })).toSorted(standingOrder);
    const [first] = ordered;
    if (first && isWithdrawn(ordered)) {
      await runner.query('INSERT INTO withdrawn (fact_id, site_id) VALUES ($1, $2)', [factId, first.siteId]);
    }
  }
}
