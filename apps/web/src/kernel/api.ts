import type { Problem } from '@tempera/contract/problem';
import type { AnswerOf, ApiKey, AskedOf } from '@tempera/contract/routes';
import { sentences } from '@tempera/contract/sentences';
import { noteServerClock } from './clock.ts';
import { askProof } from './proof.ts';

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

interface AnyAsked {
  params?: Record<string, string>;
  query?: Record<string, unknown>;
  body?: unknown;
}

/** Method and address of a call. The key of a route is both, so that no schema comes along into the browser. */
function requestOf(key: ApiKey, { params = {}, query = {} }: AnyAsked): { method: string; address: string } {
  const [method = 'GET', path = ''] = key.split(' ');
  const filled = path.replaceAll(/\{(\w+)\}/g, (_all, name: string) => encodeURIComponent(params[name] ?? ''));
  const search = new URLSearchParams(
    Object.entries(query).flatMap(([name, value]) =>
      value === undefined || value === null ? [] : [[name, String(value as string | number | boolean)]],
    ),
  ).toString();
  return { method, address: `/api${filled}${search === '' ? '' : `?${search}`}` };
}

type AskedFor<K extends ApiKey> = keyof AskedOf<K> extends never ? [] : [asked: AskedOf<K>];

/**
 * One request to the API, by the name of its route in the contract's table.
 * @throws ApiProblem when the server refuses, Unreachable when nobody answers.
 */
export async function call<K extends ApiKey>(key: K, ...rest: AskedFor<K>): Promise<AnswerOf<K>> {
  const asked: AnyAsked = rest[0] ?? {};
  const { body } = asked;
  const { method, address } = requestOf(key, asked);
  let response: Response;
  const askedMs = Date.now();
  try {
    response = await fetch(address, {
      method,
      credentials: 'same-origin',
      ...(body === undefined ? {} : { body: JSON.stringify(body), headers: { 'Content-Type': 'application/json' } }),
    });
  } catch (error) {
    throw new Unreachable({ cause: error });
  }
  noteServerClock(response.headers, askedMs, Date.now());
  if (response.status === 204) return undefined as AnswerOf<K>;
  const json: unknown = await response.json().catch(() => null);
  if (response.ok) return json as AnswerOf<K>;
  const problem = await problemIn(json);
  // Whoever gives their PIN once more goes on where they were: nothing that was typed is asked for again.
  if (problem?.code === 'pinAgain' && (await askProof())) return call(key, ...rest);
  // A proxy in between answers with pages of its own when the server is away.
  throw problem ? new ApiProblem(problem) : new Unreachable();
}

/** The problem that an answer tells of. Schemas are fetched when the first one is: most days need none. */
async function problemIn(json: unknown): Promise<Problem | null> {
  const { problemSchema } = await import('@tempera/contract/problem');
  return problemSchema.safeParse(json).data ?? null;
}

/** The sentence to show for any failure. */
export function sentenceOf(error: unknown): string {
  return error instanceof ApiProblem || error instanceof Unreachable ? error.message : sentences.internal;
}
