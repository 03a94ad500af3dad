import { sentences } from '@tempera/contract/sentences';
import { ProblemError } from './problems.ts';

/** No body of ours is nested deeper. */
const DEEPEST = 12;

/** A letter that PostgreSQL cannot keep: NUL, or half of a pair. */
const UNWRITABLE = /\0|\p{Surrogate}/u;

/**
 * Lets through what can be kept: letters that a database takes, in a shape that a person could have sent.
 * @throws ProblemError invalid, with the path of the first letter that cannot be kept
 */
export function writable<T>(input: T): T {
  const path = unwritablePath(input, [], 0);
  if (path) {
    const fields = [{ path: path.join('.'), message: sentences.unwritable }];
    throw new ProblemError('invalid', sentences.invalid, { fields });
  }
  return input;
}

function unwritablePath(value: unknown, path: readonly string[], depth: number): readonly string[] | null {
  if (typeof value === 'string') return UNWRITABLE.test(value) ? path : null;
  if (typeof value !== 'object' || value === null) return null;
  if (depth > DEEPEST) return path;
  const isList = Array.isArray(value);
  for (const [key, inner] of isList ? value.entries() : Object.entries(value)) {
    if (!isList && UNWRITABLE.test(key as string)) return path;
    // The hundreds of numbers of a trace are not worth a path each.
    if (typeof inner === 'number') continue;
    const found = unwritablePath(inner, [...path, String(key)], depth + 1);
    if (found) return found;
  }
  return null;
}
