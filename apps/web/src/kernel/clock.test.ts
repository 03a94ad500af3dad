import { CLOCK_HEADER } from '@tempera/contract/clock';
import { describe, expect, it } from 'vitest';
import { houseNowMs, noteServerClock, skewMs } from './clock.ts';

const answer = (serverMs: number): Headers => new Headers({ [CLOCK_HEADER]: String(serverMs) });

describe('the clock of this device', () => {
  it('is measured by every answer, leaves small differences alone, and corrects the time that is shown', () => {
    expect(skewMs()).toBeNull();
    noteServerClock(new Headers(), 0, 10);
    expect(skewMs()).toBeNull();
    noteServerClock(answer(1_000_000), 1_000_300, 1_000_500);
    expect(skewMs()).toBe(0);
    // A quarter of an hour ahead, half a second each way.
    noteServerClock(answer(1_000_000), 1_899_500, 1_900_500);
    expect(skewMs()).toBe(900_000);
    noteServerClock(answer(1_000_000), 1_899_900, 1_900_700);
    expect(skewMs()).toBe(900_000);
    expect(Math.abs(Date.now() - houseNowMs() - 900_000)).toBeLessThan(50);
    // Somebody set it right.
    noteServerClock(answer(1_000_000), 999_990, 1_000_010);
    expect(skewMs()).toBe(0);
  });
});
