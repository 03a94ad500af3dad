import { sentences } from '@tempera/contract/sentences';
import { ProblemError } from './problems.ts';

/** No body of ours is nested deeper. */
const DEEPEST = 12;

/** A letter that PostgreSQL cannot keep: NUL, or half of a pair. */
const isUnwritable = (text: string): boolean => text.includes('\u0000') || !isWellFormed(text);
// ES2024 has String.prototype.isWellFormed; encodeURIComponent throws for the same strings.
function isWellFormed(text: string): boolean {
  try {
    encodeURIComponent(text);
    return true;
  } catch {
    return false;
  }
}

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
  if (typeof value === 'string') return isUnwritable(value) ? path : null;
  if (typeof value !== 'object' || value === null) return null;
  if (depth > DEEPEST) return path;
  for (const [key, inner] of Object.entries(value)) {
    if (isUnwritable(key)) return path;
    const found = unwritablePath(inner, [...path, key], depth + 1);
    if (found) return found;
  }
  return null;
}
