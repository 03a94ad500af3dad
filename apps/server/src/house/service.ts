import type { PolicyChange, PolicyVersion } from '@tempera/contract/policy';
import type { Session } from '@tempera/contract/team';
import { usualPolicy } from '@tempera/core/calibration';
import type { DataSource } from 'typeorm';
import { v7 as uuidv7 } from 'uuid';
import { problem } from '../platform/problems.ts';

type Row = Omit<PolicyVersion, 'changedAt'> & { changedAt: Date };

/** What holds in a house that never chose. */
const nobodyChose: PolicyVersion = { ...usualPolicy, version: 0, reason: null, changedBy: null, changedAt: null };

/** Every version of a café's policies, the one in force first; one query. */
export async function policyVersions(db: DataSource, siteId: string): Promise<PolicyVersion[]> {
  const rows = await db.query<Row[]>(
    `SELECT v.version, v.sureness, v.risk, v.lock_rule AS "lockRule", v.trim, v.longest_check_min AS "longestCheckMin",
            v.reason, p.name AS "changedBy", v.changed_at AS "changedAt"
       FROM policy_version v LEFT JOIN person p ON p.id = v.person_id
      WHERE v.site_id = $1 ORDER BY v.version DESC`,
    [siteId],
  );
  const chosen = rows.map((row) => ({ ...row, changedAt: row.changedAt.toISOString() }));
  return chosen.length > 0 ? chosen : [nobodyChose];
}

/**
 * Writes the next version of a café's policies. The same change sent twice is answered as done.
 * @throws ProblemError headOnly; changedMeanwhile when somebody else was faster
 */
export async function changePolicy(db: DataSource, session: Session, change: PolicyChange): Promise<PolicyVersion[]> {
  if (session.person.role !== 'head') throw problem('headOnly');
  const { sureness, risk, lockRule, trim, longestCheckMin, reason, basedOn } = change;
  const siteId = session.site.id;
  const written = await db.query<{ id: string }[]>(
    `INSERT INTO policy_version (id, site_id, version, sureness, risk, lock_rule, trim, longest_check_min, reason, person_id)
     SELECT $1, $2, coalesce(max(version), 0) + 1, $4, $5, $6, $7, $8, $9, $10 FROM policy_version WHERE site_id = $2
     HAVING coalesce(max(version), 0) = $3
     ON CONFLICT (site_id, version) DO NOTHING RETURNING id`,
    [uuidv7(), siteId, basedOn, sureness, risk, lockRule, trim, longestCheckMin, reason, session.person.id],
  );
  const versions = await policyVersions(db, siteId);
  if (written.length === 0 && !isDone(versions, change, session.person.name)) throw problem('changedMeanwhile');
  return versions;
}

/** Whether the version after the one it was based on is this very change by this very person: an answer got lost. */
function isDone(versions: readonly PolicyVersion[], change: PolicyChange, name: string): boolean {
  const next = versions.find(({ version }) => version === change.basedOn + 1);
  const { basedOn: _basedOn, ...wanted } = change;
  return (
    next?.changedBy === name &&
    Object.entries(wanted).every(([key, value]) => next[key as keyof typeof wanted] === value)
  );
}
