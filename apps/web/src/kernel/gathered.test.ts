import { afterEach, beforeEach, expect, it, vi } from 'vitest';
import { gathered } from './gathered.ts';

/** What drawing costs in these tests, in milliseconds. */
const DRAWS_MS = 600;

beforeEach(() => {
  vi.useFakeTimers({ toFake: ['setTimeout', 'performance'] });
});
afterEach(() => {
  vi.useRealTimers();
});

function slowPage() {
  const drawn: { atMs: number; what: readonly string[] }[] = [];
  const hear = gathered<string>((what) => {
    drawn.push({ atMs: performance.now(), what });
    vi.advanceTimersByTime(DRAWS_MS);
  });
  return { drawn, hear };
}

it('takes what comes alone at once, however long the last took to be drawn', () => {
  const { drawn, hear } = slowPage();
  hear('dose');
  vi.advanceTimersByTime(10_000);
  const atMs = performance.now();
  hear('shot');
  vi.advanceTimersByTime(1);
  expect(drawn.map(({ what }) => what)).toEqual([['dose'], ['shot']]);
  expect(drawn[1]!.atMs - atMs).toBeLessThan(50);
});

it('draws what comes in a burst together, and leaves the page free for twice as long as it drew', () => {
  const { drawn, hear } = slowPage();
  hear('first');
  vi.advanceTimersByTime(1);
  for (const one of ['second', 'third', 'fourth']) hear(one);
  vi.advanceTimersByTime(2 * DRAWS_MS - 100);
  expect(drawn).toHaveLength(1);
  vi.advanceTimersByTime(200);
  expect(drawn.map(({ what }) => what)).toEqual([['first'], ['second', 'third', 'fourth']]);
});
