import { renderHook } from '@testing-library/react';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { useInTurn } from './useInTurn.ts';

beforeEach(() => vi.useFakeTimers());
afterEach(() => vi.useRealTimers());

describe('something that one of several tablets does', () => {
  const tablet = () => {
    const done: number[] = [];
    const { rerender } = renderHook(({ shows, isDue }) => useInTurn(isDue, 60_000, () => done.push(shows)), {
      initialProps: { shows: 0, isDue: true },
    });
    return { done, rerender };
  };

  it('is done within its minute with what is shown then, though the number flickers every second', () => {
    const { done, rerender } = tablet();
    for (let second = 1; second <= 90; second += 1) {
      vi.advanceTimersByTime(1_000);
      rerender({ shows: second, isDue: true });
    }
    expect(done).toHaveLength(1);
    expect(done[0]).toBeGreaterThanOrEqual(0);
    expect(done[0]).toBeLessThan(60);
  });

  it('is left once another has done it', () => {
    vi.spyOn(Math, 'random').mockReturnValue(0.5);
    const { done, rerender } = tablet();
    vi.advanceTimersByTime(20_000);
    rerender({ shows: 1, isDue: false });
    vi.advanceTimersByTime(120_000);
    expect(done).toEqual([]);
    vi.restoreAllMocks();
  });
});
