import { changeables, liveEvents, type Changed, type Joined } from '@tempera/contract/live';
import { bridgeReadingsSchema, type BridgeReadings } from '@tempera/contract/readings';
import type { Request, Response } from 'express';
import { Client } from 'pg';
import type { Logger } from 'pino';
import type { DataSource } from 'typeorm';
import { z } from 'zod';

const FACTS = 'tempera_fact';
/** Something of the house book or the bar changed: whoever shows it reads it again. */
const HOUSE = 'tempera_house';
/** A session has ended, and what it holds open with it. */
const SESSION = 'tempera_session';
/** What a bridge's devices tell. */
const READINGS = 'tempera_readings';
/** PostgreSQL carries no longer notice. */
const MOST_NOTICE_B = 7_500;
const RECONNECT_MS = 1_000;
/** Proxies cut silent streams after half a minute or so. */
const HEARTBEAT_MS = 15_000;
const BROWSER_RETRY_MS = 1_000;
/** Tabs of one browser; a stream more ends the oldest. */
const MOST_STREAMS = 12;
const MOST_UNREAD_B = 1_000_000;
/** Facts that come closer together than this are told together. */
const GATHERED_MS = 100;

const factNotice = z.object({ siteId: z.string(), id: z.string() });
const readingsNotice = bridgeReadingsSchema.extend({ siteId: z.string() });
const houseNotice = z.object({ siteId: z.string(), what: z.enum(changeables) });

interface LiveParts {
  databaseUrl: string;
  log: Logger;
  /** Facts as the wire has them, by their ids, in the order of their arrival. */
  readFacts: (ids: string[]) => Promise<{ seq: number; siteId: string }[]>;
  /** When this café last had news of any kind, ms since the epoch; null: never. */
  lastNewsMs: (siteId: string) => Promise<number | null>;
  /** Which of these sessions have ended. */
  endedAmong: (sessionKeys: string[]) => Promise<string[]>;
}

/** Whose stream it is. */
interface Listener {
  siteId: string;
  /** What its session is known by. */
  sessionKey: string;
}

/** Tells every server process that a session has ended: its streams end within a moment. */
export const endStreamsOf = (db: Pick<DataSource, 'query'>, sessionKey: string): Promise<unknown> =>
  db.query('SELECT pg_notify($1, $2)', [SESSION, sessionKey]);

/** Tells every server process what a bridge's devices read, in as few notices as they fit in. */
export async function tellReadings(
  db: Pick<DataSource, 'query'>,
  siteId: string,
  readings: BridgeReadings['readings'],
): Promise<void> {
  const payload = JSON.stringify({ siteId, readings });
  if (Buffer.byteLength(payload) <= MOST_NOTICE_B || readings.length < 2) {
    await db.query('SELECT pg_notify($1, $2)', [READINGS, payload]);
    return;
  }
  const half = Math.ceil(readings.length / 2);
  await tellReadings(db, siteId, readings.slice(0, half));
  await tellReadings(db, siteId, readings.slice(half));
}

/** The café’s stream of news. */
export interface Live {
  /** Settles once it listens for the first time, or has lost the database. */
  ready: Promise<void>;
  /** Keeps a browser's stream open until either side ends it. */
  join(listener: Listener, req: Request, res: Response): void;
  close(): Promise<void>;
}

/** An event as it goes over the wire. @param id its place, which a browser names when it comes back */
const eventText = (event: string, data: unknown, id?: number): string =>
  `${id === undefined ? '' : `id: ${id}\n`}event: ${event}\ndata: ${JSON.stringify(data)}\n\n`;

/**
 * Fans facts out to browsers as server-sent events. Each server process listens to PostgreSQL's notices on a client of
 * its own; when that client is lost, notices may be missed, so browsers are told to read everything again.
 */
export function startLive({ databaseUrl, log, readFacts, lastNewsMs, endedAmong }: LiveParts): Live {
  const streams = new Map<Response, Listener>();
  let client: Client | null = null;
  let closed = false;
  let retry: NodeJS.Timeout | null = null;

  /** Lets a stream go: its browser comes back by itself, and reads everything anew. */
  const drop = (res: Response): void => {
    streams.delete(res);
    res.end();
  };

  const write = (res: Response, text: string): void => {
    // Whoever does not read would fill this process's memory.
    if (res.writableLength > MOST_UNREAD_B) {
      streams.delete(res);
      res.destroy();
      return;
    }
    res.write(text);
  };

  const send = (res: Response, event: string, data: unknown): void => write(res, eventText(event, data));

  /** Facts that nobody here was told of yet; of cafés that nobody here listens to there are none. */
  let untold: string[] = [];
  let telling: NodeJS.Timeout | null = null;
  let isTelling = false;
  let toldAtMs = 0;

  /** A fact is told at once in a quiet minute; where they come one upon the other they are read, written out and sent together. */
  const announce = (payload: string): void => {
    const { siteId, id } = factNotice.parse(JSON.parse(payload));
    if (![...streams.values()].some((its) => its.siteId === siteId)) return;
    untold.push(id);
    tellSoon();
  };

  const tellSoon = (): void => {
    if (isTelling || untold.length === 0) return;
    isTelling = true;
    telling = setTimeout(
      () => {
        tell()
          .catch((error: unknown) => {
            log.error({ err: error }, 'live: facts could not be passed on');
            resyncAll();
          })
          .finally(() => {
            isTelling = false;
            // What came meanwhile is told after it, never before.
            tellSoon();
          });
      },
      Math.max(0, toldAtMs + GATHERED_MS - Date.now()),
    );
  };

  const tell = async (): Promise<void> => {
    const ids = untold;
    untold = [];
    toldAtMs = Date.now();
    const textBySite = new Map<string, string>();
    for (const fact of await readFacts(ids)) {
      const before = textBySite.get(fact.siteId) ?? '';
      textBySite.set(fact.siteId, before + eventText(liveEvents.fact, fact, fact.seq));
    }
    for (const [res, { siteId }] of streams) {
      const text = textBySite.get(siteId);
      if (text !== undefined) write(res, text);
    }
  };

  const passReadings = (payload: string): void => {
    const { siteId, readings } = readingsNotice.parse(JSON.parse(payload));
    for (const [res, its] of streams) if (its.siteId === siteId) send(res, liveEvents.readings, { readings });
  };

  const passChange = (payload: string): void => {
    const { siteId, what } = houseNotice.parse(JSON.parse(payload));
    for (const [res, its] of streams)
      if (its.siteId === siteId) send(res, liveEvents.changed, { what } satisfies Changed);
  };

  /** Whoever joins hears of all that follows; when the last news was tells whether what they have read is older than that. */
  const welcome = async (res: Response, siteId: string): Promise<void> => {
    const atMs = Date.now();
    send(res, liveEvents.joined, { atMs, lastMs: await lastNewsMs(siteId) } satisfies Joined);
  };

  const endThoseOf = (sessionKey: string): void => {
    for (const [res, its] of streams) if (its.sessionKey === sessionKey) drop(res);
  };

  /** A notice that a session has ended may have been missed: its stream ends all the same. */
  const endThoseOver = async (): Promise<void> => {
    if (streams.size === 0) return;
    const keys = [...new Set([...streams.values()].map(({ sessionKey }) => sessionKey))];
    for (const key of await endedAmong(keys)) endThoseOf(key);
  };

  const resyncAll = (): void => {
    for (const res of streams.keys()) send(res, liveEvents.resync, {});
  };

  const listen = async (): Promise<void> => {
    const fresh = new Client({ connectionString: databaseUrl, keepAlive: true });
    let lost = false;
    const lose = (cause?: unknown): void => {
      if (lost) return;
      lost = true;
      client = null;
      fresh.end().catch(() => undefined);
      if (closed) return;
      log.warn({ err: cause }, 'live: lost the database, trying again');
      retry = setTimeout(() => void listen(), RECONNECT_MS);
    };
    fresh.on('error', lose);
    fresh.on('end', () => lose());
    fresh.on('notification', ({ channel, payload = '' }) => {
      try {
        if (channel === SESSION) endThoseOf(payload);
        else if (channel === HOUSE) passChange(payload);
        else if (channel === READINGS) passReadings(payload);
        else announce(payload);
      } catch (error) {
        log.error({ err: error }, 'live: a notice could not be passed on');
        resyncAll();
      }
    });
    try {
      await fresh.connect();
      client = fresh;
      // Closed while it connected: a listener that nobody ends would keep the process alive.
      if (closed) {
        await fresh.end();
        return;
      }
      await fresh.query(`LISTEN ${FACTS}`);
      await fresh.query(`LISTEN ${HOUSE}`);
      await fresh.query(`LISTEN ${SESSION}`);
      await fresh.query(`LISTEN ${READINGS}`);
      resyncAll();
      await endThoseOver();
    } catch (error) {
      lose(error);
    }
  };
  const ready = listen();

  const heartbeat = setInterval(() => {
    for (const res of streams.keys()) write(res, ': still here\n\n');
    endThoseOver().catch((error: unknown) => log.warn({ err: error }, 'live: sessions could not be looked up'));
  }, HEARTBEAT_MS);

  return {
    ready,
    join(listener, req, res) {
      res.writeHead(200, {
        'Content-Type': 'text/event-stream',
        'Cache-Control': 'no-cache, no-transform',
        'X-Accel-Buffering': 'no',
      });
      res.write(`retry: ${BROWSER_RETRY_MS}\n\n`);
      const own = [...streams].filter(([, { sessionKey }]) => sessionKey === listener.sessionKey);
      for (const [oldest] of own.slice(0, Math.max(0, own.length - MOST_STREAMS + 1))) drop(oldest);
      streams.set(res, listener);
      welcome(res, listener.siteId).catch((error: unknown) => {
        log.warn({ err: error }, 'live: the last news could not be looked up');
        send(res, liveEvents.resync, {});
      });
      req.on('close', () => streams.delete(res));
    },
    async close() {
      closed = true;
      clearInterval(heartbeat);
      if (retry) clearTimeout(retry);
      if (telling) clearTimeout(telling);
      for (const res of streams.keys()) res.end();
      streams.clear();
      await client?.end().catch(() => undefined);
    },
  };
}
