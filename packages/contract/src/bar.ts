import { z } from 'zod';
import { entityId } from './common.ts';
import { recipeVersionSchema } from './house.ts';
import { housePolicySchema } from './policy.ts';
import { recordedFactSchema, type RecordedFact } from './journal.ts';

/** Where a piece stands, seen from above, in cm from the plan's left and top edge. */
const place = z.object({ xCm: z.number(), yCm: z.number(), widthCm: z.number(), depthCm: z.number() });
export type Place = z.infer<typeof place>;

const group = z
  .object({ id: entityId, name: z.string(), machineId: entityId, position: z.int() })
  .meta({ id: 'Group' });
const machine = z.object({ id: entityId, name: z.string(), place, groups: z.array(group) }).meta({ id: 'Machine' });
const grinder = z
  .object({
    id: entityId,
    name: z.string(),
    place,
    stepMarks: z.number().positive(),
    finer: z.enum(['down', 'up']),
    dialMin: z.number(),
    dialMax: z.number(),
    secondsPerMark: z.number().nullable(),
    retentionG: z.number().nullable(),
    rateGps: z.number().nullable(),
    seedSetting: z.number(),
    coffee: z.string(),
    recipe: recipeVersionSchema,
  })
  .meta({ id: 'Grinder' });
const counter = z
  .object({ id: entityId, place, faces: z.enum(['up', 'down']) })
  .meta({ id: 'Counter', description: 'A counter, and the side of the plan where the barista stands.' });
const fixture = z
  .object({ id: entityId, kind: z.enum(['scale', 'knockBox', 'milk']), name: z.string(), place })
  .meta({ id: 'Fixture' });

export type Group = z.infer<typeof group>;
export type Machine = z.infer<typeof machine>;
export type Grinder = z.infer<typeof grinder>;
export type Counter = z.infer<typeof counter>;
export type Fixture = z.infer<typeof fixture>;

/** The bar as it stands, with the facts that tell how each grinder stands: its last lock and all since. */
export const barSchema = z
  .object({
    room: z.object({ widthCm: z.number(), depthCm: z.number() }),
    counters: z.array(counter),
    machines: z.array(machine),
    grinders: z.array(grinder),
    fixtures: z.array(fixture),
    house: housePolicySchema,
    facts: z.array(recordedFactSchema),
  })
  .meta({ id: 'Bar' });
export type Bar = Omit<z.infer<typeof barSchema>, 'facts'> & { facts: RecordedFact[] };
