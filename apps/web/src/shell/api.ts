import { problemSchema, type Problem } from '@tempera/contract/problem';
import { sentences } from '@tempera/contract/sentences';
import { noteServerClock } from './clock.ts';

/** A request that the server answered with a problem. */
export class ApiProblem extends Error {
  constructor(readonly problem: Problem) {
    super(problem.detail);
  }
}

/** No answer at all: no network, or no server. Worth a retry. */
export class Unreachable extends Error {
  constructor(options?: ErrorOptions) {
    super('The server cannot be reached. What you enter is kept here and sent later.', options);
  }
}

/**
 * One request to the API.
 * @throws ApiProblem when the server refuses, Unreachable when nobody answers.
 */
export async function api<T>(method: 'GET' | 'POST' | 'PUT' | 'DELETE', path: string, body?: unknown): Promise<T> {
  let response: Response;
  const askedMs = Date.now();
  try {
    response = await fetch(`/api${path}`, {
      method,
      credentials: 'same-origin',
      ...(body === undefined ? {} : { body: JSON.stringify(body), headers: { 'Content-Type': 'application/json' } }),
    });
  } catch (error) {
    throw new Unreachable({ cause: error });
  }
  noteServerClock(response.headers, askedMs, Date.now());
  if (response.status === 204) return undefined as T;
  const json: unknown = await response.json().catch(() => null);
  if (response.ok) return json as T;
  const problem = problemSchema.safeParse(json);
  // A proxy in between answers with pages of its own when the server is away.
  if (!problem.success) throw new Unreachable();
  throw new ApiProblem(problem.data);
}

/** The sentence to show for any failure. */
export function sentenceOf(error: unknown): string {
  return error instanceof ApiProblem || error instanceof Unreachable ? error.message : sentences.internal;
}
