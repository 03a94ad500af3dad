import { recordedFactSchema, type RecordedFact } from './journal.ts';
import { z } from 'zod';

/** A grinder's bench: the facts since (and with) its last lock, and the newest weighed doses before. */
export const benchSchema = z.object({ facts: z.array(recordedFactSchema) }).meta({ id: 'Bench' });
/** The facts that a bench needs. */
export interface Bench {
  facts: RecordedFact[];
}
