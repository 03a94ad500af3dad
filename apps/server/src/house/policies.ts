import type { Session } from '@tempera/contract/team';
import { usualHouse, type HousePolicy, type PolicyChange, type PolicyVersion } from '@tempera/contract/policy';
import type { DataSource } from 'typeorm';
import { v7 as uuidv7 } from 'uuid';
import { problem } from '../kernel/problems.ts';
import { PolicyVersionEntity } from './entities.ts';

type Row = Omit<PolicyVersion, 'changedAt' | keyof HousePolicy> & { changedAt: Date; choices: Partial<HousePolicy> };

/** What holds in a house that never chose. */
const nobodyChose: PolicyVersion = { ...usualHouse, version: 0, reason: null, changedBy: null, changedAt: null };

/** Every version of a café's policies, the one in force first; one query. */
export async function policyVersions(db: DataSource, siteId: string): Promise<PolicyVersion[]> {
  const rows = await db.query<Row[]>(
    `SELECT v.version, v.choices, v.reason, p.name AS "changedBy", v.changed_at AS "changedAt"
       FROM policy_version v LEFT JOIN person p ON p.id = v.person_id
      WHERE v.site_id = $1 ORDER BY v.version DESC`,
    [siteId],
  );
  // A policy that came after a version was decided stands as it usually does.
  const chosen = rows.map(({ choices, ...row }) => ({
    ...row,
    ...usualHouse,
    ...choices,
    changedAt: row.changedAt.toISOString(),
  }));
  return chosen.length > 0 ? chosen : [nobodyChose];
}

/**
 * Writes the next version of a café's policies. The same change sent twice is answered as done.
 * @throws ProblemError changedMeanwhile when somebody else was faster
 */
export async function changePolicy(db: DataSource, session: Session, change: PolicyChange): Promise<PolicyVersion[]> {
  const { basedOn, reason, ...choices } = change;
  const siteId = session.site.id;
  const kept = db.getRepository(PolicyVersionEntity);
  const newest = (await kept.maximum('version', { siteId })) ?? 0;
  const row = { id: uuidv7(), siteId, version: basedOn + 1, choices, reason, personId: session.person.id };
  // Two who are based on the same version write the same number: the table lets one of them in.
  if (newest === basedOn) await kept.createQueryBuilder().insert().values(row).orIgnore().execute();
  const versions = await policyVersions(db, siteId);
  if (!isDone(versions, change, session.person.name)) throw problem('changedMeanwhile');
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
