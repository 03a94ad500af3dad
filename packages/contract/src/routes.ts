import type { z } from 'zod';
import type { ParamsOf, Route, RouteKey } from './route.ts';
import { barRoutes } from './routes/bar.ts';
import { calibrationRoutes } from './routes/calibration.ts';
import { captureRoutes } from './routes/capture.ts';
import { coffeeRoutes } from './routes/coffee.ts';
import { dayRoutes } from './routes/day.ts';
import { houseRoutes } from './routes/house.ts';
import { journalRoutes } from './routes/journal.ts';
import { openingRoutes } from './routes/opening.ts';
import { teamRoutes } from './routes/team.ts';

/** The routes of each room. */
export const roomRoutes = {
  team: teamRoutes,
  bar: barRoutes,
  house: houseRoutes,
  coffee: coffeeRoutes,
  calibration: calibrationRoutes,
  journal: journalRoutes,
  opening: openingRoutes,
  day: dayRoutes,
  capture: captureRoutes,
};

/** Every way to ask the server. */
export const routes = {
  ...teamRoutes,
  ...barRoutes,
  ...houseRoutes,
  ...coffeeRoutes,
  ...calibrationRoutes,
  ...journalRoutes,
  ...openingRoutes,
  ...dayRoutes,
  ...captureRoutes,
} satisfies Record<RouteKey, Route>;

/** Routes by name, with what each takes and answers. */
export type Api = typeof routes;
/** The name of a route: its method and path. */
export type ApiKey = keyof Api;

type Part<K extends ApiKey, P extends string> = P extends keyof Api[K] ? Api[K][P] : undefined;
type Sent<S> = S extends z.ZodType ? z.input<S> : undefined;
/** A client names what it asks for by its value, and leaves out what it does not care for. */
type Named<S> = S extends z.ZodType ? Partial<z.output<S>> : undefined;
type Read<S> = S extends z.ZodType ? z.output<S> : undefined;

/** What a client sends along: names of the path, query, body. */
export type AskedOf<K extends ApiKey> = {
  [P in 'params' | 'query' | 'body' as AskedPart<K, P> extends undefined ? never : P]: AskedPart<K, P>;
};
type AskedPart<K extends ApiKey, P> = P extends 'params'
  ? ParamsOf<K> extends never
    ? undefined
    : Record<ParamsOf<K>, string>
  : P extends 'query'
    ? Named<Part<K, P>>
    : P extends 'body'
      ? Sent<Part<K, P>>
      : never;

/** What the server reads of it, parsed. */
export interface HeardOf<K extends ApiKey> {
  params: Record<ParamsOf<K>, string>;
  query: Read<Part<K, 'query'>>;
  body: Read<Part<K, 'body'>>;
}

/** What is answered: the JSON of its schema, or nothing of that kind. */
export type AnswerOf<K extends ApiKey> = Read<Part<K, 'answer'>>;
