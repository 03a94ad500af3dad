import { changeables, liveEvents, type Changed, type Joined } from '@tempera/contract/live';
import { bridgeReadingsSchema, type BridgeReadings } from '@tempera/contract/readings';
import type { Request, Response } from 'express';
import type { Logger } from 'pino';
import type { DataSource } from 'typeorm';
import { z } from 'zod';
import { FactTeller } from './factTeller.ts';
import { eventText, LiveStreams, type Listener } from './liveStreams.ts';
import { NoticeListener } from './noticeListener.ts';

const FACTS = 'tempera_fact';
/** Something of the house book or the bar changed: whoever shows it reads it again. */
const HOUSE = 'tempera_house';
/** A session has ended, and what it holds open with it. */
const SESSION = 'tempera_session';
/** What a bridge's devices tell. */
const READINGS = 'tempera_readings';
/** PostgreSQL carries no longer notice. */
const MOST_NOTICE_B = 7_500;
/** Proxies cut silent streams after half a minute or so. */
const HEARTBEAT_MS = 15_000;

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

/**
 * Fans facts out to browsers as server-sent events. Each server process listens to PostgreSQL's notices on a client of
 * its own; when that client is lost, notices may be missed, so browsers are told to read everything again.
 */
export function startLive({ databaseUrl, log, readFacts, lastNewsMs, endedAmong }: LiveParts): Live {
  const streams = new LiveStreams();
  const resyncAll = (): void => streams.toAll(eventText(liveEvents.resync, {}));

  const teller = new FactTeller(
    async (ids) => {
      const textBySite = new Map<string, string>();
      for (const fact of await readFacts(ids)) {
        const before = textBySite.get(fact.siteId) ?? '';
        textBySite.set(fact.siteId, before + eventText(liveEvents.fact, fact, fact.seq));
      }
      for (const [siteId, text] of textBySite) streams.toSite(siteId, text);
    },
    (error) => {
      log.error({ err: error }, 'live: facts could not be passed on');
      resyncAll();
    },
  );

  const heardOn: Record<string, (payload: string) => void> = {
    [FACTS]: (payload) => {
      const { siteId, id } = factNotice.parse(JSON.parse(payload));
      // Of cafés that nobody here listens to nothing is read.
      if (streams.hasSite(siteId)) teller.add(id);
    },
    [HOUSE]: (payload) => {
      const { siteId, what } = houseNotice.parse(JSON.parse(payload));
      streams.toSite(siteId, eventText(liveEvents.changed, { what } satisfies Changed));
    },
    [SESSION]: (payload) => streams.endThoseOf(payload),
    [READINGS]: (payload) => {
      const { siteId, readings } = readingsNotice.parse(JSON.parse(payload));
      streams.toSite(siteId, eventText(liveEvents.readings, { readings }));
    },
  };

  /** A notice that a session has ended may have been missed: its stream ends all the same. */
  const endThoseOver = async (): Promise<void> => {
    const keys = streams.sessionKeys();
    if (keys.length === 0) return;
    for (const key of await endedAmong(keys)) streams.endThoseOf(key);
  };

  const listener = new NoticeListener({
    databaseUrl,
    log,
    channels: Object.keys(heardOn),
    onNotice: (channel, payload) => {
      try {
        heardOn[channel]?.(payload);
      } catch (error) {
        log.error({ err: error }, 'live: a notice could not be passed on');
        resyncAll();
      }
    },
    onListening: async () => {
      resyncAll();
      await endThoseOver();
    },
  });

  const heartbeat = setInterval(() => {
    streams.toAll(': still here\n\n');
    endThoseOver().catch((error: unknown) => log.warn({ err: error }, 'live: sessions could not be looked up'));
  }, HEARTBEAT_MS);

  /** Whoever joins hears of all that follows; when the last news was tells whether what they have read is older than that. */
  const welcome = async (res: Response, siteId: string): Promise<void> => {
    const atMs = Date.now();
    streams.send(res, liveEvents.joined, { atMs, lastMs: await lastNewsMs(siteId) } satisfies Joined);
  };

  return {
    ready: listener.ready,
    join(whose, req, res) {
      streams.open(whose, req, res);
      welcome(res, whose.siteId).catch((error: unknown) => {
        log.warn({ err: error }, 'live: the last news could not be looked up');
        streams.send(res, liveEvents.resync, {});
      });
    },
    async close() {
      clearInterval(heartbeat);
      teller.stop();
      streams.endAll();
      await listener.close();
    },
  };
}
