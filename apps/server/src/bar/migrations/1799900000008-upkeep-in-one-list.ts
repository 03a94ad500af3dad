import type { MigrationInterface, QueryRunner } from 'typeorm';

interface Rule {
  what: string;
  months: number | null;
  litres: number | null;
  lastOn: string | null;
}

/** The rules with a day on which something was done, where it is later than what they say of it. */
function withDay(rules: readonly Rule[], what: string, doneOn: string | null): Rule[] {
  if (doneOn === null) return [...rules];
  if (!rules.some((rule) => rule.what === what))
    return [...rules, { what, months: null, litres: null, lastOn: doneOn }];
  return rules.map((rule) =>
    rule.what === what && (rule.lastOn === null || rule.lastOn < doneOn) ? { ...rule, lastOn: doneOn } : rule,
  );
}

/** The last service and the last gaskets of a machine stand in its list of what is kept up, and nowhere else. */
export class UpkeepInOneList1799900000008 implements MigrationInterface {
  readonly name = 'UpkeepInOneList1799900000008';

  async up(runner: QueryRunner): Promise<void> {
    const machines = (await runner.query(
      'SELECT id, upkeep, serviced_on::text AS "servicedOn", gaskets_on::text AS "gasketsOn" FROM machine',
    )) as { id: string; upkeep: Rule[]; servicedOn: string | null; gasketsOn: string | null }[];
    for (const { id, upkeep, servicedOn, gasketsOn } of machines) {
      const rules = withDay(withDay(upkeep, 'service', servicedOn), 'gaskets', gasketsOn);
      await runner.query('UPDATE machine SET upkeep = $2 WHERE id = $1', [id, JSON.stringify(rules)]);
    }
    await runner.query('ALTER TABLE machine DROP COLUMN serviced_on, DROP COLUMN gaskets_on');
  }

  down(): Promise<void> {
    return Promise.reject(new Error('Migrations only go forward: restore a backup instead.'));
  }
}
