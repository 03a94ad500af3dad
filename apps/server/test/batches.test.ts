import { afterEach, beforeEach, expect, it, vi } from 'vitest';
import { Batches } from '../src/kernel/batches.ts';

beforeEach(() => void vi.useFakeTimers());
afterEach(() => void vi.useRealTimers());

const EVERY_MS = 25;

function batchesOf(hand: (batch: number[]) => Promise<void> = () => Promise.resolve()) {
  const handed: number[][] = [];
  const failed = vi.fn();
  const batches = new Batches<number>(
    EVERY_MS,
    (batch) => {
      handed.push(batch);
      return hand(batch);
    },
    failed,
  );
  return { batches, handed, failed };
}

it('hands one on at once, and what follows closely together', async () => {
  const { batches, handed } = batchesOf();
  batches.add(1);
  await vi.advanceTimersByTimeAsync(0);
  expect(handed).toEqual([[1]]);
  batches.add(2);
  await vi.advanceTimersByTimeAsync(EVERY_MS - 1);
  batches.add(3);
  expect(handed).toEqual([[1]]);
  await vi.advanceTimersByTimeAsync(1);
  expect(handed).toEqual([[1], [2, 3]]);
});

it('hands on what came meanwhile after what is being handed on, and goes on after a failure', async () => {
  const { batches, handed, failed } = batchesOf((batch) =>
    batch.includes(1)
      ? new Promise((_, reject) => setTimeout(() => reject(new Error('gone')), 200))
      : Promise.resolve(),
  );
  batches.add(1);
  await vi.advanceTimersByTimeAsync(100);
  batches.add(2);
  expect(handed).toEqual([[1]]);
  await vi.advanceTimersByTimeAsync(100);
  await vi.runAllTimersAsync();
  expect(failed).toHaveBeenCalledOnce();
  expect(handed).toEqual([[1], [2]]);
});

it('hands on what still waits when it is to finish', async () => {
  const { batches, handed } = batchesOf();
  batches.add(1);
  await vi.advanceTimersByTimeAsync(0);
  batches.add(2);
  await batches.finish();
  expect(handed).toEqual([[1], [2]]);
});
