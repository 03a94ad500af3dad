import { liveEvents, type Changeable, type Changed, type Joined } from '@tempera/contract/live';
import type { RecordedEntry } from '@tempera/contract/journal';
import type { BridgeReadings } from '@tempera/contract/readings';
import { notifyManager, useQueryClient, type Query, type QueryClient } from '@tanstack/react-query';
import { useEffect, useState } from 'react';
import { skewMs } from './clock.ts';
import { gathered } from './gathered.ts';
import type { Outbox } from './outbox.ts';
import type { News } from './room.ts';

/** Facts that the server has kept, wherever they were seen, become part of everything shown, which is drawn once for all of them. */
export function takeIn(client: QueryClient, facts: readonly RecordedEntry[], news: readonly News[]): void {
  notifyManager.batch(() => {
    for (const fact of facts) for (const room of news) room.onFact?.(client, fact);
  });
  readAgain(client, news);
}

/** A read under way may have begun before the fact was kept: its answer would take the fact off the screen again. */
function readAgain(client: QueryClient, news: readonly News[]): void {
  const reads = client.getQueryCache().findAll({ fetchStatus: 'fetching', predicate: isOfTheCafe(news) });
  for (const query of reads) {
    const again = (): void => void client.invalidateQueries({ queryKey: query.queryKey, exact: true });
    if (query.state.data !== undefined) again();
    // A first read cannot be begun anew while it runs: its answer is shown, and read again at once.
    else query.promise?.then(again, () => undefined);
  }
}

/** Reads that a lost stream makes stale: who stands here, the sheets, and what each room says it reads. */
const isOfTheCafe = (news: readonly News[]) => {
  const missed = new Set(['session', 'sheets', ...news.flatMap(({ reads }) => reads)]);
  return (query: Query): boolean => missed.has(String(query.queryKey[0]));
};
/** Who stands here, their name and their café's, by these sheets. */
const IN_SESSION: readonly Changeable[] = ['person', 'cafe'];

/** Something of the house was changed: what shows it is read again, and nothing else. */
export function takeChange(client: QueryClient, what: Changeable, news: readonly News[]): void {
  const touched = new Set([
    ...news.flatMap(({ reads, shows }) => ((shows?.includes(what) ?? true) ? reads : [])),
    ...(IN_SESSION.includes(what) ? ['session'] : []),
  ]);
  void client.invalidateQueries({
    predicate: ({ queryKey: [first, kind] }) => touched.has(String(first)) || (first === 'sheets' && kind === what),
  });
}

/** A read that was answered so shortly before the stream opened may have missed what came in between. */
const MARGIN_MS = 5_000;

/** The stream is open: whatever was read before the last news, or about when they came, is read again. */
export function takeJoined(client: QueryClient, { atMs, lastMs }: Joined, news: readonly News[]): void {
  if (lastMs === null) return;
  const isOurs = isOfTheCafe(news);
  const isQuiet = atMs - lastMs > MARGIN_MS;
  const deviceMs = lastMs + (skewMs() ?? 0) + MARGIN_MS;
  void client.invalidateQueries({
    predicate: (query) => {
      const { dataUpdatedAt } = query.state;
      // What is being read for the first time was asked for just now: in a quiet hour nothing came in between.
      return isOurs(query) && (!isQuiet || (dataUpdatedAt > 0 && dataUpdatedAt < deviceMs));
    },
  });
}

const REOPEN_MS = 2_000;

/** Listens to the café's live stream while signed in. Returns since when the server is out of reach, ms since the epoch; null while it is in reach. */
export function useLive(
  sessionKey: string | null,
  outbox: Pick<Outbox, 'flush' | 'isSending'>,
  news: readonly News[],
): number | null {
  const client = useQueryClient();
  const [aloneSinceMs, setAloneSinceMs] = useState<number | null>(null);
  useEffect(() => {
    if (sessionKey === null) return undefined;
    let stream: EventSource;
    let reopen: ReturnType<typeof setTimeout> | null = null;
    const hear = gathered<RecordedEntry>((facts) => takeIn(client, facts, news));
    const open = (): void => {
      stream = new EventSource('/api/live');
      stream.addEventListener('open', () => {
        setAloneSinceMs(null);
        outbox.flush();
      });
      stream.addEventListener('error', () => {
        setAloneSinceMs((before) => before ?? Date.now());
        // After some answers of a half-started server the browser gives up by itself.
        if (stream.readyState === EventSource.CLOSED) reopen = setTimeout(open, REOPEN_MS);
      });
      stream.addEventListener(liveEvents.fact, (event) => {
        const fact = JSON.parse((event as MessageEvent<string>).data) as RecordedEntry;
        // What went from here is told of by whoever sent it.
        if (!outbox.isSending(fact.id)) hear(fact);
      });
      stream.addEventListener(liveEvents.readings, (event) => {
        const told = JSON.parse((event as MessageEvent<string>).data) as BridgeReadings;
        for (const room of news) room.onReadings?.(told);
      });
      stream.addEventListener(liveEvents.joined, (event) => {
        takeJoined(client, JSON.parse((event as MessageEvent<string>).data) as Joined, news);
      });
      stream.addEventListener(liveEvents.changed, (event) => {
        takeChange(client, (JSON.parse((event as MessageEvent<string>).data) as Changed).what, news);
      });
      // The server lost its own listener for a while: what happened then was missed, so everything is read again.
      stream.addEventListener(liveEvents.resync, () => {
        void client.invalidateQueries({ predicate: isOfTheCafe(news) });
      });
    };
    open();
    return () => {
      stream.close();
      if (reopen) clearTimeout(reopen);
    };
  }, [client, outbox, sessionKey, news]);
  return aloneSinceMs;
}
