import { escapeIdentifier } from 'pg';
import type { DataSource } from 'typeorm';

/** What was written there stands: rows are added and read, never changed. */
const APPEND_ONLY = ['fact', 'recipe_version', 'policy_version', 'sheet_version', 'audit'];

/**
 * Gives the role that the server works under what it needs and no more: it owns nothing, so it can neither drop the triggers that
 * keep facts as they are, nor give itself the right to change them.
 * @param owner connected as the owner of the tables @param serverUrl of the database, as the server's role
 */
export async function letServe(owner: DataSource, serverUrl: string): Promise<void> {
  const role = escapeIdentifier(decodeURIComponent(new URL(serverUrl).username));
  await owner.query(`
    GRANT USAGE ON SCHEMA public TO ${role};
    GRANT SELECT, INSERT, UPDATE, DELETE ON ALL TABLES IN SCHEMA public TO ${role};
    GRANT USAGE, SELECT ON ALL SEQUENCES IN SCHEMA public TO ${role};
    REVOKE UPDATE, DELETE, TRUNCATE, REFERENCES, TRIGGER ON ${APPEND_ONLY.join(', ')} FROM ${role};
    REVOKE INSERT, UPDATE, DELETE ON migration FROM ${role};
  `);
}
