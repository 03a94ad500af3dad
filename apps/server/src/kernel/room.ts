import type { AnswerOf, Api, ApiKey, HeardOf, roomRoutes } from '@tempera/contract/routes';
import type { Session, Welcome } from '@tempera/contract/team';
import type { Request, Response } from 'express';
import type { StepKind, StepOf } from '@tempera/core/facts';
import type { DataSource, EntityManager, EntitySchema, MigrationInterface } from 'typeorm';
import type { Config } from './config.ts';
import type { Live } from './live.ts';

/** A step that was kept, or one that was taken back. */
export interface KeptStep<K extends StepKind = StepKind> {
  siteId: string;
  /** Who wrote the step, or took it back. */
  personId: string;
  /** When the step was done, by the house's clock, ms since the epoch. */
  atMs: number;
  body: StepOf<K>;
}

/** What a step changes on a sheet, in the same transaction in which it is kept, and what it leaves when it is taken back. */
export interface StepEffect<K extends StepKind = StepKind> {
  done(tx: EntityManager, step: KeptStep<K>): Promise<void>;
  undone(tx: EntityManager, step: KeptStep<K>): Promise<void>;
}
export type StepEffects = { [K in StepKind]?: StepEffect<K> };

/** What a room works with. */
export interface RoomParts {
  db: DataSource;
  config: Config;
  live: Live;
  demo: Welcome['demo'];
  /** What steps change besides being kept, as all rooms say. */
  effects: StepEffects;
  /** By which the first café is set up; null: there was one when the server started. */
  setUpCode: string | null;
}

/** A request as a handler gets it: parsed, and from somebody who may ask. */
interface Asked<K extends ApiKey> extends HeardOf<K> {
  /** Who asks; null on routes that are open to anyone. */
  session: Api[K]['who'] extends 'anyone' ? null : Session;
  req: Request;
  res: Response;
}

/** What a handler gives: the answer, a file as it is read, or nothing that is sent for it. */
type Given<K extends ApiKey> = Api[K]['answer'] extends 'csv'
  ? NodeJS.ReadableStream
  : Api[K]['answer'] extends 'events' | 'nothing'
    ? undefined
    : AnswerOf<K>;

type Handler<K extends ApiKey> = (asked: Asked<K>) => Given<K> | Promise<Given<K>>;
/** What answers routes, by their names. */
export type Handlers<K extends ApiKey> = { [P in K]: Handler<P> };

type RoomName = keyof typeof roomRoutes;

/** A room as it announces itself: what it answers, what it keeps. */
export interface Room<N extends RoomName = RoomName> {
  /** As in the contract's table, of which it answers every route. */
  name: N;
  tables: readonly EntitySchema[];
  /** Changes of its tables, each named by its time; none for a room without any of its own. */
  migrations?: readonly (new () => MigrationInterface)[];
  /** What steps change on the sheets of this room. */
  effects?: StepEffects;
  handlers(parts: RoomParts): Handlers<Extract<keyof (typeof roomRoutes)[N], ApiKey>>;
}

/** Announces a room, with its name's routes checked. */
export const roomOf = <N extends RoomName>(room: Room<N>): Room<N> => room;
