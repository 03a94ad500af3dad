import type { z } from 'zod';

/** Who may call a route: anybody on the network, whoever is signed in, or certain roles only. */
export type Who = 'anyone' | 'signedIn' | 'headOrOffice' | 'head';

type Method = 'GET' | 'POST' | 'PUT' | 'DELETE';
/** Method and path of a route under /api; `{id}` stands for the UUID of a thing. */
export type RouteKey = `${Method} /${string}`;

/** What is answered besides JSON: a file of comma-separated values, a stream of events, nothing at all. */
export type OtherAnswer = 'csv' | 'events' | 'nothing';

/** For so long a PIN stands for what only its owner may do. */
export const PROOF_HOLDS_MIN = 15;

/** One way to ask the server: Express, the OpenAPI document and the browser's client are all made from it. */
export interface Route {
  /** What the answer is, in one sentence. */
  says: string;
  who: Who;
  query?: z.ZodType;
  body?: z.ZodType;
  answer: z.ZodType | OtherAnswer;
  /** Of an answer that is no refusal; 200 unless it says otherwise. */
  status?: 201;
  /** A guess at a PIN could be tried here: only so many a minute. */
  slowly?: true;
  /** Who asks has given their PIN within `PROOF_HOLDS_MIN`: a tablet that was left open is nobody's signature. */
  surely?: true;
}

/** Names in braces of a path. */
export type ParamsOf<K extends string> = K extends `${string}{${infer Name}}${infer Rest}`
  ? Name | ParamsOf<Rest>
  : never;

/** Method and path of a key. */
export function partsOf(key: RouteKey): { method: Method; path: string } {
  const space = key.indexOf(' ');
  return { method: key.slice(0, space) as Method, path: key.slice(space + 1) };
}

/** The table of a room, checked while its types are kept. */
export const routesOf = <T extends Record<RouteKey, Route>>(table: T): T => table;
