import { changeables, liveEvents, type Changed, type Joined } from '@tempera/contract/live';
import { bridgeReadingsSchema, type BridgeReadings } from '@tempera/contract/readings';
import type { Request, Response } from 'express';
import type { Logger } from 'pino';
import type { DataSource } from 'typeorm';
import { z } from 'zod';
import { LiveFacts, type FactReads } from './liveFacts.ts';
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

const readingsNotice = bridgeReadingsSchema.extend({ siteId: z.string() });
const houseNotice = z.object({ siteId: z.string(), what: z.enum(changeables) });

interface LiveParts extends FactReads {
  databaseUrl: string;
  log: Logger;
  /** Sends a notice to every process. */
  notify: (channel: string, payload: string) => Promise<unknown>;
  /** Which of these sessions have ended. */
  endedAmong: (sessionKeys: string[]) => Promise<string[]>;
}

/** Tells every server process that a session has ended: its streams end within a moment. */
export const endStreamsOf = (db: Pick<DataSource, 'query'>, sessionKey: string): Promise<unknown> =>
  notify(db, SESSION, sessionKey);

/** Sends a notice to every server process. */
export const notify = (db: Pick<DataSource, 'query'>, channel: string, payload: string): Promise<unknown> =>
  db.query('SELECT pg_notify($1, $2)', [channel, payload]);

/** Tells every server process what a bridge's devices read, in as few notices as they fit in. */
export async function tellReadings(
  db: Pick<DataSource, 'query'>,
  siteId: string,
  readings: BridgeReadings['readings'],
): Promise<void> {
  const payload = JSON.stringify({ siteId, readings });
  if (Buffer.byteLength(payload) <= MOST_NOTICE_B || readings.length < 2) {
    await notify(db, READINGS, payload);
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
  /** This process has written a fact, and it is committed. */
  wrote(fact: { id: string; siteId: string }): void;
  /** Keeps a browser's stream open until either side ends it. */
  join(listener: Listener, req: Request, res: Response): void;
  close(): Promise<void>;
}

/** The place of the last fact that a browser was told of, which it names when it comes back; null: it comes anew. */
function lastPlaceOf(req: Request): number | null {
  const asked = Number(req.get('Last-Event-ID') ?? '');
  return Number.isSafeInteger(asked) && asked > 0 ? asked : null;
}

/**
 * Fans facts out to browsers as server-sent events. Each server process listens to PostgreSQL's notices on a client of
 * its own; what is missed while that client is lost is found by its place afterwards.
 */
export function startLive({ databaseUrl, log, endedAmong, notify: send, ...reads }: LiveParts): Live {
  const streams = new LiveStreams();
  const resync = eventText(liveEvents.resync, {});

  const facts = new LiveFacts({
    ...reads,
    streams,
    notify: (payload) => send(FACTS, payload),
    notAnnounced: (error) => log.warn({ err: error }, 'live: facts could not be announced'),
    notTold: (error) => {
      log.error({ err: error }, 'live: facts could not be passed on');
      streams.toAll(resync);
    },
  });

  const heardOn: Record<string, (payload: string) => void> = {
    [FACTS]: (payload) => facts.hear(payload),
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

  /** What notices should have told: facts, and sessions that have ended. */
  const catchUp = async (wasDeaf: boolean): Promise<void> => {
    for (const siteId of await facts.catchUp(wasDeaf)) streams.toSite(siteId, resync);
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
        streams.toAll(resync);
      }
    },
    onListening: () =>
      catchUp(true).catch((error: unknown) => {
        streams.toAll(resync);
        throw error;
      }),
  });

  const heartbeat = setInterval(() => {
    streams.toAll(': still here\n\n');
    catchUp(false).catch((error: unknown) => log.warn({ err: error }, 'live: what was missed could not be looked up'));
  }, HEARTBEAT_MS);

  /**
   * Whoever joins hears of all that follows, and whoever comes back of what came meanwhile; when the last news were that
   * they were not told of tells whether what they have read is older.
   */
  const welcome = async (res: Response, siteId: string, afterSeq: number | null): Promise<void> => {
    const atMs = Date.now();
    const { seq, newsMs, houseMs } = await facts.begin(siteId);
    // A place beyond the last is of another database: a backup was restored meanwhile.
    const hasAll = afterSeq !== null && afterSeq <= seq && (await facts.tellGap(res, siteId, afterSeq));
    const joined = { atMs, lastMs: hasAll ? houseMs : newsMs } satisfies Joined;
    streams.send(res, liveEvents.joined, joined, seq);
  };

  return {
    ready: listener.ready,
    wrote: (fact) => facts.wrote(fact),
    join(whose, req, res) {
      streams.open(whose, req, res);
      welcome(res, whose.siteId, lastPlaceOf(req)).catch((error: unknown) => {
        log.warn({ err: error }, 'live: what was missed could not be looked up');
        streams.send(res, liveEvents.resync, {});
      });
    },
    async close() {
      clearInterval(heartbeat);
      await facts.close();
      streams.endAll();
      await listener.close();
    },
  };
}
