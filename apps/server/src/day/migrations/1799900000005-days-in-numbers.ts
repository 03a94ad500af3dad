import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Days of a grinder as core made them of its facts, so that years are read as days; and how far they were made. */
export class DaysInNumbers1799900000005 implements MigrationInterface {
  readonly name = 'DaysInNumbers1799900000005';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`
CREATE TABLE day_summary (
  grinder_id uuid NOT NULL, day text NOT NULL, site_id uuid NOT NULL, heard_seq double precision NOT NULL,
  summary jsonb NOT NULL,
  CONSTRAINT day_summary_pk PRIMARY KEY (grinder_id, day),
  CONSTRAINT day_summary_grinder_fk FOREIGN KEY (grinder_id) REFERENCES grinder(id),
  CONSTRAINT day_summary_site_fk FOREIGN KEY (site_id) REFERENCES site(id)
);
CREATE TABLE days_made (
  grinder_id uuid NOT NULL, site_id uuid NOT NULL, heard_seq double precision NOT NULL, made_with text NOT NULL,
  CONSTRAINT days_made_pk PRIMARY KEY (grinder_id),
  CONSTRAINT days_made_grinder_fk FOREIGN KEY (grinder_id) REFERENCES grinder(id),
  CONSTRAINT days_made_site_fk FOREIGN KEY (site_id) REFERENCES site(id)
);
`);
  }

  down(): Promise<void> {
    return Promise.reject(new Error('Migrations only go forward: restore a backup instead.'));
  }
}
