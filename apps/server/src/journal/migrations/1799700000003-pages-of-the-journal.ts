import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Every filter of the journal reads its page from an index, however old the house and whatever is retired. */
export class PagesOfTheJournal1799700000003 implements MigrationInterface {
  readonly name = 'PagesOfTheJournal1799700000003';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`
CREATE INDEX fact_group_seq_ix ON fact (group_id, seq);
CREATE INDEX fact_step_grinder_ix ON fact ((body->>'grinderId'), seq) WHERE kind = 'step';
CREATE INDEX fact_step_group_ix ON fact ((body->>'groupId'), seq) WHERE kind = 'step';
CREATE INDEX fact_kind_seq_ix ON fact (site_id, kind, seq);
`);
  }

  down(): Promise<void> {
    return Promise.reject(new Error('Migrations only go forward: restore a backup instead.'));
  }
}
