import type { MigrationInterface, QueryRunner } from 'typeorm';

/**
 * Entries that a tablet of the house told by the name they carry alone, and when their author confirmed them by a PIN. No foreign key to
 * the fact: checking one would lock it, and nobody may.
 */
export class ToldByName1799900000006 implements MigrationInterface {
  readonly name = 'ToldByName1799900000006';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`
CREATE TABLE told_by_name (
  fact_id uuid NOT NULL, site_id uuid NOT NULL, device_id uuid NOT NULL, confirmed_at timestamptz,
  CONSTRAINT told_by_name_pk PRIMARY KEY (fact_id),
  CONSTRAINT told_by_name_site_fk FOREIGN KEY (site_id) REFERENCES site(id),
  CONSTRAINT told_by_name_device_fk FOREIGN KEY (device_id) REFERENCES device(id)
);
`);
  }

  down(): Promise<void> {
    return Promise.reject(new Error('Migrations only go forward: restore a backup instead.'));
  }
}
