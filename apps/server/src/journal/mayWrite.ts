import type { NewEntry, NewStep, RecordedStep } from '@tempera/contract/journal';
import { actOf, mayTellForOthers, rights, rolesToUndo, skillsFor, surelyWritten } from '@tempera/contract/rights';
import { rolesWord, sentences } from '@tempera/contract/sentences';
import { lacking, skillSaid } from '@tempera/contract/signOffs';
import type { Role, Session } from '@tempera/contract/team';
import { houseTimeMs, standingFacts } from '@tempera/core/facts';
import { businessDay } from '@tempera/core/house';
import { morningOf, openingFromMs } from '@tempera/core/opening';
import type { DataSource } from 'typeorm';
import { problem, ProblemError } from '../kernel/problems.ts';
import { isProven } from '../kernel/session.ts';
import { PersonEntity, whoSaidYes } from '../team/index.ts';
import { FactEntity } from './entities.ts';

/** A run is over so long after its hour at the latest; its plan was written before that. */
const LONGEST_RUN_MS = 36 * 3_600_000;

type ReadSteps = (db: DataSource, siteId: string, sinceMs: number) => Promise<RecordedStep[]>;

const refusedFor = (roles: readonly Role[]): ProblemError =>
  new ProblemError('needsRole', sentences.needsRole(rolesWord(roles)));

/**
 * Whether this person may write this entry, alone or by a second person's yes: by the contract's table of rights and, for a
 * run, by what is in hand. What was kept once is answered as done, whatever has changed since.
 * @param readSteps reads the café's steps since a moment
 * @returns who said yes, where that was needed
 * @throws ProblemError needsRole, notSignedOff, headSigns, headBegins, pinAgain
 */
export async function mayWrite(
  db: DataSource,
  session: Session,
  entry: NewEntry,
  readSteps: ReadSteps,
): Promise<string | null> {
  const atMs = houseTimeMs(Date.parse(entry.at), entry.skewMs, Date.now());
  const refusal =
    (await refusalOf(db, session, entry, readSteps)) ??
    proofRefusal(session, entry, atMs) ??
    (await trainingRefusal(db, session, entry));
  if (!refusal || (await db.getRepository(FactEntity).existsBy({ id: entry.id }))) return null;
  if (entry.yesId === undefined) throw refusal;
  const second = await whoSaidYes(db, session, entry.yesId, atMs);
  // Judged as if the second person wrote it: what is theirs to undo, and whom they may speak for, is theirs.
  const asSecond = second && { ...session, person: { ...session.person, ...second } };
  const refused =
    !asSecond ||
    ((await refusalOf(db, asSecond, entry, readSteps)) ?? (await trainingRefusal(db, asSecond, entry))) !== null;
  if (refused) throw refusal;
  return asSecond.person.id;
}

/** A signature on a tablet that was left open is nobody's: it wants a PIN of just now, or a second person's. */
function proofRefusal(session: Session, entry: NewEntry, atMs: number): ProblemError | null {
  const act = actOf(entry);
  return act && surelyWritten.includes(act) && !isProven(session, atMs) ? problem('pinAgain') : null;
}

/** Where the house asks for it, what is decided at a station is decided by somebody who is signed off for it. */
async function trainingRefusal(db: DataSource, { person, site }: Session, entry: NewEntry) {
  const asked = skillsFor(entry, () => null);
  if (asked.length === 0) return null;
  const [policy] = await db.query<{ alone: string | null }[]>(
    `SELECT choices->>'alone' AS alone FROM policy_version WHERE site_id = $1 ORDER BY version DESC LIMIT 1`,
    [site.id],
  );
  if (policy?.alone !== 'asked') return null;
  const people = await db.getRepository(PersonEntity).findBy({ siteId: site.id, retired: false });
  const today = businessDay(Date.now(), site.timeZone, site.dayStartsMin);
  const machineId = await machineOf(db, entry.groupId);
  const [first] = lacking(
    people,
    person.id,
    skillsFor(entry, () => machineId),
    today,
  );
  return first === undefined ? null : new ProblemError('notSignedOff', sentences.notSignedOff(skillSaid(first)));
}

async function machineOf(db: DataSource, groupId: string | null): Promise<string | null> {
  if (groupId === null) return null;
  const [row] = await db.query<{ id: string }[]>('SELECT machine_id AS id FROM group_head WHERE id = $1', [groupId]);
  return row?.id ?? null;
}

async function refusalOf(
  db: DataSource,
  session: Session,
  entry: NewEntry,
  readSteps: ReadSteps,
): Promise<ProblemError | null> {
  const { role } = session.person;
  const act = actOf(entry);
  if (act === null) return undoRefusal(db, session, undoneBy(entry));
  if (!rights[act].write.includes(role))
    return act === 'signedOff' ? problem('headSigns') : refusedFor(rights[act].write);
  if (entry.kind !== 'step') return null;
  const { body } = entry;
  const tells = body.step === 'tasted' || body.step === 'trialTasted';
  if (tells && body.tasterId !== session.person.id && !mayTellForOthers.includes(role)) {
    return refusedFor(mayTellForOthers);
  }
  return role === 'head' ? null : runRefusal(db, entry, readSteps);
}

function undoneBy(entry: NewEntry): string | null {
  if (entry.kind === 'correction') return entry.body.factId;
  return entry.kind === 'step' && entry.body.step === 'takenBack' ? entry.body.takesBack : null;
}

async function undoRefusal(db: DataSource, { person }: Session, undone: string | null): Promise<ProblemError | null> {
  const target = undone === null ? null : await db.getRepository(FactEntity).findOneBy({ id: undone });
  const act = target && actOf(target);
  if (!act) return null;
  const roles = rolesToUndo(act, target.personId === person.id);
  if (roles.includes(person.role)) return null;
  return act === 'planned' || act === 'signedOff' ? problem('headBegins') : refusedFor(roles);
}

/** Only a head barista signs an opening, or begins a run anew while one is in hand; an evening comes whatever the morning left open. */
async function runRefusal(
  db: DataSource,
  { siteId, body }: NewStep,
  readSteps: ReadSteps,
): Promise<ProblemError | null> {
  if (body.step !== 'planned' && body.step !== 'signedOff') return null;
  const nowMs = Date.now();
  const steps = standingFacts(await readSteps(db, siteId, nowMs - LONGEST_RUN_MS));
  if (body.step === 'signedOff') {
    const run = morningOf(steps, nowMs)?.run ?? 'opening';
    return run === 'opening' ? problem('headSigns') : null;
  }
  if (body.run === 'closing' && morningOf(steps, nowMs)?.run !== 'closing') return null;
  const inHand = openingFromMs(steps, nowMs);
  return inHand !== null && Date.parse(body.from) !== inHand ? problem('headBegins') : null;
}
