import type { NewStep, RecordedStep } from '@tempera/contract/journal';
import type { Session } from '@tempera/contract/team';
import { standingFacts } from '@tempera/core/facts';
import { morningOf, openingFromMs } from '@tempera/core/opening';
import type { DataSource } from 'typeorm';
import { problem } from '../kernel/problems.ts';
import { FactEntity } from './entities.ts';

/** A run is over so long after its hour at the latest; its plan was written before that. */
const LONGEST_RUN_MS = 36 * 3_600_000;

/**
 * Whose a step of the run is: only a head barista signs an opening, begins a run anew while one is in hand, or takes a plan or a
 * signature back. What was kept once is answered as done, whatever has changed since.
 * @param readSteps reads the café's steps since a moment
 * @throws ProblemError headSigns, headBegins
 */
export async function mayStep(
  db: DataSource,
  { person }: Session,
  { id, siteId, body }: NewStep,
  readSteps: (db: DataSource, siteId: string, sinceMs: number) => Promise<RecordedStep[]>,
): Promise<void> {
  if (person.role === 'head') return;
  if (body.step !== 'planned' && body.step !== 'takenBack' && body.step !== 'signedOff') return;
  if (await db.getRepository(FactEntity).existsBy({ id })) return;
  if (body.step === 'takenBack') {
    const target =
      body.takesBack === null ? null : await db.getRepository(FactEntity).findOneBy({ id: body.takesBack });
    const step = target && 'step' in target.body ? target.body.step : null;
    if (step === 'planned' || step === 'signedOff') throw problem('headBegins');
    return;
  }
  const nowMs = Date.now();
  const steps = standingFacts(await readSteps(db, siteId, nowMs - LONGEST_RUN_MS));
  if (body.step === 'signedOff') {
    const run = morningOf(steps, nowMs)?.run ?? 'opening';
    if (run === 'opening' || person.role !== 'barista') throw problem('headSigns');
    return;
  }
  const inHand = openingFromMs(steps, nowMs);
  if (inHand !== null && Date.parse(body.from) !== inHand) throw problem('headBegins');
}
