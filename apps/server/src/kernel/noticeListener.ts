import { Client } from 'pg';
import type { Logger } from 'pino';

const RECONNECT_MS = 1_000;

interface ListenerParts {
  databaseUrl: string;
  log: Logger;
  channels: readonly string[];
  onNotice: (channel: string, payload: string) => void;
  /** It listens, for the first time or again: notices may have been missed. */
  onListening: () => Promise<void> | void;
}

/** Listens to PostgreSQL's notices on a client of its own, and again when that client is lost. */
export class NoticeListener {
  /** Settles once it listens for the first time, or has lost the database. */
  readonly ready: Promise<void>;
  private readonly parts: ListenerParts;
  private client: Client | null = null;
  private retry: NodeJS.Timeout | null = null;
  private closed = false;

  constructor(parts: ListenerParts) {
    this.parts = parts;
    this.ready = this.listen();
  }

  async close(): Promise<void> {
    this.closed = true;
    if (this.retry) clearTimeout(this.retry);
    await this.client?.end().catch(() => undefined);
  }

  private async listen(): Promise<void> {
    const { databaseUrl, log, channels, onNotice, onListening } = this.parts;
    const fresh = new Client({ connectionString: databaseUrl, keepAlive: true });
    let lost = false;
    const lose = (cause?: unknown): void => {
      if (lost) return;
      lost = true;
      this.client = null;
      fresh.end().catch(() => undefined);
      if (this.closed) return;
      log.warn({ err: cause }, 'live: lost the database, trying again');
      this.retry = setTimeout(() => void this.listen(), RECONNECT_MS);
    };
    fresh.on('error', lose);
    fresh.on('end', () => lose());
    fresh.on('notification', ({ channel, payload = '' }) => onNotice(channel, payload));
    try {
      await fresh.connect();
      this.client = fresh;
      // Closed while it connected: a listener that nobody ends would keep the process alive.
      if (this.closed) {
        await fresh.end();
        return;
      }
      for (const channel of channels) await fresh.query(`LISTEN ${channel}`);
      await onListening();
    } catch (error) {
      lose(error);
    }
  }
}
