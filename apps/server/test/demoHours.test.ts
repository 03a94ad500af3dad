import { businessDay, openSpan } from '@tempera/core/house';
import { MS_PER_HOUR, MS_PER_MINUTE } from '@tempera/core/numbers';
import { expect, it } from 'vitest';
import { site } from '../src/practice/demoBar.ts';
import { demoHours } from '../src/practice/demoHours.ts';

const HALF_HOURS = Array.from({ length: 48 }, (_, i) => i * 30);
const MIDNIGHT_MS = Date.UTC(2026, 10, 28);

it.each(['opening', 'service', 'close'] as const)(
  'the demo is at its %s whatever the clock shows, on one business day',
  (moment) => {
    for (const minutes of HALF_HOURS) {
      const nowMs = MIDNIGHT_MS + minutes * MS_PER_MINUTE;
      const hours = demoHours(moment, new Date(nowMs));
      const dayOf = (atMs: number): string => businessDay(atMs, site.timeZone, hours.dayStartsMin);
      const span = openSpan({ ...site, ...hours }, dayOf(nowMs));
      const [opensH, closesH] = [span?.opensMs ?? 0, span?.closesMs ?? 0].map((atMs) => (atMs - nowMs) / MS_PER_HOUR);
      const said = `at ${minutes / 60} o'clock, open from ${opensH} h to ${closesH} h`;
      if (moment === 'opening') expect(opensH, said).toBeGreaterThan(0);
      else expect(opensH, said).toBeLessThan(-3);
      expect(opensH, said).toBeGreaterThan(-12);
      expect(closesH, said).toBeGreaterThan(moment === 'close' ? 0 : 5);
      expect(dayOf(span?.closesMs ?? 0), said).toBe(dayOf(nowMs));
    }
  },
);
