import { createHash } from 'node:crypto';
import type { PoolClient } from 'pg';
import type { DataSource, EntityManager } from 'typeorm';

/** PostgreSQL cuts longer names; this much of a hash never meets another by chance. */
const NAME_LETTERS = 32;

const nameByText = new Map<string, string>();

function nameOf(text: string): string {
  const known = nameByText.get(text);
  if (known !== undefined) return known;
  const name = createHash('sha256').update(text).digest('hex').slice(0, NAME_LETTERS);
  nameByText.set(text, name);
  return name;
}

/**
 * Runs a statement that each connection parses and plans once: for those that every request or every fact sends, whose
 * planning costs more than their doing. Its text must be one of a few, with all that differs in `values`.
 * @param db a data source, or the manager of a transaction
 */
export async function prepared<Row>(
  db: DataSource | EntityManager,
  text: string,
  values: readonly unknown[],
): Promise<Row[]> {
  const source = 'dataSource' in db ? db.dataSource : db;
  const own = 'queryRunner' in db ? db.queryRunner : undefined;
  const runner = own ?? source.createQueryRunner();
  try {
    const client = (await runner.connect()) as PoolClient;
    source.logger.logQuery(text, [...values]);
    const { rows } = await client.query<Row & object>({ name: nameOf(text), text, values: [...values] });
    return rows;
  } finally {
    if (runner !== own) await runner.release();
  }
}
