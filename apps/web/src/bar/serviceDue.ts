import { businessDay, openSpan } from '@tempera/core/house';
import { startTransition, useCallback, useEffect, useState } from 'react';
import { useSession } from '../kernel/session.ts';
import { useCalendar } from '../kernel/calendar.ts';
import { useBar } from './queries.ts';
import type { ClosesAt, serviceDueMs } from './serviceDueMs.ts';
import { useStandingFacts } from './useStandingFacts.ts';

/** When the house closes. */
export function useClosesAt(): ClosesAt {
  const { data: session } = useSession();
  const calendar = useCalendar();
  const dayStartsMin = session?.site.dayStartsMin ?? 0;
  return useCallback(
    (atMs) =>
      calendar === null
        ? null
        : (openSpan(calendar, businessDay(atMs, calendar.timeZone, dayStartsMin))?.closesMs ?? null),
    [calendar, dayStartsMin],
  );
}

/** The controller comes with the engine, a fifth of the app: the first view does not wait for it, and goes by the lock's own word. */
let controller: typeof serviceDueMs | null = null;

/** Fetches it, once; where that fails the lock's own word goes on. */
export async function controllerFetched(): Promise<void> {
  if (controller !== null) return;
  const loaded = await import('./serviceDueMs.ts').catch(() => null);
  controller = loaded?.serviceDueMs ?? null;
}

/** What says when a grinder is looked at in service; null while it is fetched. */
export function useController(): typeof serviceDueMs | null {
  const [known, setKnown] = useState(() => controller);
  useEffect(() => {
    // Not at once: a whole page would be drawn again under the finger that waits for its first drawing.
    void controllerFetched().then(() => startTransition(() => setKnown(() => controller)));
  }, []);
  return known;
}

/** When the day's controller wants a grinder looked at, ms since the epoch; null while it or the bar is read. */
export function useServiceDueMs(grinderId: string): number | null {
  const { data: bar } = useBar();
  const facts = useStandingFacts();
  const closesAt = useClosesAt();
  const dueMsOf = useController();
  const grinder = bar?.grinders.find(({ id }) => id === grinderId);
  return bar && grinder && dueMsOf ? dueMsOf(bar, facts, grinder, closesAt) : null;
}
