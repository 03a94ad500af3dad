import type { Bar } from '@tempera/contract/bar';
import type { RecordedStep } from '@tempera/contract/journal';
import { QueryClient, QueryObserver } from '@tanstack/react-query';
import { describe, expect, it, vi } from 'vitest';
import { takeChange, takeIn, takeJoined } from '../kernel/live.ts';
import { rooms } from './rooms.ts';

const step = { id: 'hot', kind: 'step', body: { step: 'hot' } } as unknown as RecordedStep;
const barWith = (...steps: RecordedStep[]): Bar => ({ steps, facts: [] }) as unknown as Bar;

/** A bar page open on this device, whose reads are answered when the test says. */
function openBar(seen?: Bar) {
  const client = new QueryClient({ defaultOptions: { queries: { retry: false } } });
  const answers: ((bar: Bar) => void)[] = [];
  if (seen) client.setQueryData(['bar'], seen);
  const observer = new QueryObserver(client, {
    queryKey: ['bar'],
    queryFn: () => new Promise<Bar>((resolve) => answers.push(resolve)),
  });
  observer.subscribe(() => undefined);
  const ids = () => observer.getCurrentResult().data?.steps.map(({ id }) => id);
  return { client, answers, ids };
}

describe('a fact that arrives while the bar is being read', () => {
  it('stays, though the answer under way was written before it', async () => {
    const { client, answers, ids } = openBar(barWith());
    takeIn(client, [step], rooms);
    expect(ids()).toEqual(['hot']);
    answers[0]?.(barWith());
    await vi.waitFor(() => expect(answers).toHaveLength(2));
    expect(ids()).toEqual(['hot']);
    answers[1]?.(barWith(step));
    await vi.waitFor(() => expect(client.isFetching()).toBe(0));
    expect(ids()).toEqual(['hot']);
  });

  it('is read once more after a first answer that did not know it', async () => {
    const { client, answers, ids } = openBar();
    takeIn(client, [step], rooms);
    answers[0]?.(barWith());
    await vi.waitFor(() => expect(answers).toHaveLength(2));
    answers[1]?.(barWith(step));
    await vi.waitFor(() => expect(ids()).toEqual(['hot']));
  });

  it('asks for nothing when nothing is being read', async () => {
    const { client, answers, ids } = openBar(barWith());
    answers[0]?.(barWith());
    await vi.waitFor(() => expect(client.isFetching()).toBe(0));
    takeIn(client, [step], rooms);
    expect(ids()).toEqual(['hot']);
    expect(answers).toHaveLength(1);
  });
});

describe('news of the house', () => {
  const keys = [
    ['bar'],
    ['bar', 'learned'],
    ['coffee', 'stock'],
    ['house', 'policies'],
    ['journal', {}],
    ['team'],
    ['session'],
  ];
  const sheets = [
    ['sheets', 'drink'],
    ['sheets', 'person'],
  ];
  /** A device that has read everything at these moments, ms since the epoch. */
  function readAt(...atMs: number[]) {
    const client = new QueryClient();
    for (const [i, key] of [...keys, ...sheets].entries()) {
      client.setQueryData(key, {}, { updatedAt: atMs[i] ?? atMs[0] ?? Date.now() });
    }
    const stale = (): string[] =>
      client
        .getQueryCache()
        .findAll({ predicate: ({ state }) => state.isInvalidated })
        .map(({ queryKey }) => queryKey.filter((part) => typeof part === 'string').join(' '));
    return { client, stale };
  }

  it('are read again by what shows them, and by nothing else', () => {
    const drink = readAt();
    takeChange(drink.client, 'drink', rooms);
    expect(drink.stale()).toEqual(['coffee stock', 'house policies', 'journal', 'sheets drink']);
    const person = readAt();
    takeChange(person.client, 'person', rooms);
    expect(person.stale()).toEqual(['journal', 'team', 'session', 'sheets person']);
    const memory = readAt();
    takeChange(memory.client, 'memory', rooms);
    expect(memory.stale()).toEqual(['bar', 'bar learned', 'journal']);
  });

  it('that came before everything was read ask for nothing as the stream opens', () => {
    const nowMs = Date.now();
    const { client, stale } = readAt(nowMs - 1_000);
    takeJoined(client, { atMs: nowMs, lastMs: null }, rooms);
    takeJoined(client, { atMs: nowMs, lastMs: nowMs - 60_000 }, rooms);
    expect(stale()).toEqual([]);
    // They came while it was being read: nobody knows which was first.
    takeJoined(client, { atMs: nowMs, lastMs: nowMs - 2_000 }, rooms);
    expect(stale()).toHaveLength(keys.length + sheets.length);
  });

  it('are not hidden by a fact of one’s own that came in since: the bar was last read whole before they came', () => {
    const nowMs = Date.now();
    const client = new QueryClient();
    client.setQueryData(['bar'], barWith(), { updatedAt: nowMs - 3_600_000 });
    takeIn(client, [step], rooms);
    expect(client.getQueryData<Bar>(['bar'])?.steps).toEqual([step]);
    takeJoined(client, { atMs: nowMs, lastMs: nowMs - 600_000 }, rooms);
    const isStale = (): boolean => client.getQueryState(['bar'])?.isInvalidated ?? false;
    expect(isStale()).toBe(true);
    // And another one does not make it fresh again.
    takeIn(client, [{ ...step, id: 'second' }], rooms);
    expect(isStale()).toBe(true);
  });

  it('make stale what was read before them, on a device that was away', () => {
    const nowMs = Date.now();
    const { client, stale } = readAt(nowMs - 1_000, nowMs - 3_600_000);
    takeJoined(client, { atMs: nowMs, lastMs: nowMs - 600_000 }, rooms);
    expect(stale()).toEqual(['bar learned']);
  });
});
