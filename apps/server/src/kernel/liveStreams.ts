import type { Request, Response } from 'express';

/** Browsers come back so soon after a stream has ended. */
const BROWSER_RETRY_MS = 1_000;
/** Tabs of one browser; a stream more ends the oldest. */
const MOST_STREAMS = 12;
const MOST_UNREAD_B = 1_000_000;

/** Whose stream it is. */
export interface Listener {
  siteId: string;
  /** What its session is known by. */
  sessionKey: string;
}

/** An event as it goes over the wire. @param id its place, which a browser names when it comes back */
export const eventText = (event: string, data: unknown, id?: number): string =>
  `${id === undefined ? '' : `id: ${id}\n`}event: ${event}\ndata: ${JSON.stringify(data)}\n\n`;

/** The browsers' open streams of this process. */
export class LiveStreams {
  private readonly streams = new Map<Response, Listener>();

  /** Opens a stream, until either side ends it. */
  open(listener: Listener, req: Request, res: Response): void {
    res.writeHead(200, {
      'Content-Type': 'text/event-stream',
      'Cache-Control': 'no-cache, no-transform',
      'X-Accel-Buffering': 'no',
    });
    res.write(`retry: ${BROWSER_RETRY_MS}\n\n`);
    const own = [...this.streams].filter(([, { sessionKey }]) => sessionKey === listener.sessionKey);
    for (const [oldest] of own.slice(0, Math.max(0, own.length - MOST_STREAMS + 1))) this.drop(oldest);
    this.streams.set(res, listener);
    req.on('close', () => this.streams.delete(res));
  }

  hasSite(siteId: string): boolean {
    return [...this.streams.values()].some((its) => its.siteId === siteId);
  }

  /** Cafés that somebody listens to, each once. */
  siteIds(): string[] {
    return [...new Set([...this.streams.values()].map(({ siteId }) => siteId))];
  }

  /** What the sessions of the open streams are known by, each once. */
  sessionKeys(): string[] {
    return [...new Set([...this.streams.values()].map(({ sessionKey }) => sessionKey))];
  }

  send(res: Response, event: string, data: unknown, id?: number): void {
    this.write(res, eventText(event, data, id));
  }

  /** Writes to every stream of a café. */
  toSite(siteId: string, text: string): void {
    for (const [res, its] of this.streams) if (its.siteId === siteId) this.write(res, text);
  }

  toAll(text: string): void {
    for (const res of this.streams.keys()) this.write(res, text);
  }

  endThoseOf(sessionKey: string): void {
    for (const [res, its] of this.streams) if (its.sessionKey === sessionKey) this.drop(res);
  }

  endAll(): void {
    for (const res of this.streams.keys()) res.end();
    this.streams.clear();
  }

  /** Lets a stream go: its browser comes back by itself, and reads what it missed. */
  private drop(res: Response): void {
    this.streams.delete(res);
    res.end();
  }

  private write(res: Response, text: string): void {
    // Whoever does not read would fill this process's memory.
    if (res.writableLength > MOST_UNREAD_B) {
      this.streams.delete(res);
      res.destroy();
      return;
    }
    res.write(text);
  }
}
