import { z } from 'zod';
import { entityId } from './common.ts';

/** What is looked for: a part of a name. */
export const searchQuerySchema = z.strictObject({ q: z.string().trim().min(1).max(80) });

/** Kinds of things that a search finds. */
export const hitKinds = ['recipe', 'coffee', 'drink', 'person'] as const;

/** Things of the house by name, the best matches first. */
export const searchSchema = z
  .object({ hits: z.array(z.object({ kind: z.enum(hitKinds), id: entityId, name: z.string() })) })
  .meta({ id: 'Search' });
/** What a search found. */
export type Search = z.infer<typeof searchSchema>;
