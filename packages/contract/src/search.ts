import { z } from 'zod';
import { entityId } from './common.ts';

export const searchQuerySchema = z.strictObject({ q: z.string().trim().min(1).max(80) });

export const hitKinds = ['recipe', 'coffee', 'drink', 'person'] as const;

/** Things of the house by name, the best matches first. */
export const searchSchema = z
  .object({ hits: z.array(z.object({ kind: z.enum(hitKinds), id: entityId, name: z.string() })) })
  .meta({ id: 'Search' });
export type Search = z.infer<typeof searchSchema>;
