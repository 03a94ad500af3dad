import { act, cleanup, renderHook } from '@testing-library/react';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { usePull, type PullDraft } from './usePull.ts';

const begin = Date.parse('2031-05-04T06:30:00Z');
const draft: PullDraft = {
  id: 'pull',
  startedAtMs: begin,
  stoppedAtS: null,
  doseG: 18,
  groupId: 'group',
  setting: 30,
  byScale: false,
};

beforeEach(() => {
  vi.useFakeTimers();
  vi.setSystemTime(begin);
  localStorage.clear();
});
afterEach(() => {
  cleanup();
  vi.useRealTimers();
});

const pass = (ms: number): void =>
  act(() => {
    vi.advanceTimersByTime(ms);
  });

describe('a pull by the clock alone', () => {
  it('runs, stops to a tenth, and ends', () => {
    const { result } = renderHook(() => usePull('grinder', null));
    expect(result.current.pulling).toBe(false);
    act(() => result.current.start(draft));
    pass(12_340);
    expect(result.current.live?.elapsedS).toBeCloseTo(12.3, 1);
    act(() => result.current.stop());
    pass(5_000);
    expect(result.current.live).toMatchObject({ elapsedS: 12.3, settled: true });
    act(() => result.current.end());
    expect(result.current).toMatchObject({ live: null, pulling: false });
    expect(localStorage.getItem('tempera.pull.grinder')).toBeNull();
  });

  it('goes on after a reload where it was, and only at its own grinder', () => {
    const before = renderHook(() => usePull('grinder', null));
    act(() => before.result.current.start(draft));
    pass(5_000);
    before.unmount();
    pass(5_000);
    const after = renderHook(() => usePull('grinder', null));
    pass(100);
    expect(after.result.current.live?.elapsedS).toBeCloseTo(10.1, 1);
    expect(renderHook(() => usePull('another', null)).result.current.pulling).toBe(false);
  });

  it('stops once: a second stop changes nothing', () => {
    const { result } = renderHook(() => usePull('grinder', null));
    act(() => result.current.start(draft));
    pass(8_000);
    act(() => result.current.stop());
    pass(3_000);
    act(() => result.current.stop());
    pass(100);
    expect(result.current.live?.elapsedS).toBe(8);
  });

  it('is not upset by a draft that cannot be read', () => {
    localStorage.setItem('tempera.pull.grinder', '{');
    expect(renderHook(() => usePull('grinder', null)).result.current.pulling).toBe(false);
  });
});
