import type { Bar } from '@tempera/contract/bar';
import type { RecordedStep } from '@tempera/contract/journal';
import { QueryClient, QueryObserver } from '@tanstack/react-query';
import { describe, expect, it, vi } from 'vitest';
import { takeIn } from '../kernel/live.ts';
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
    takeIn(client, step, rooms);
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
    takeIn(client, step, rooms);
    answers[0]?.(barWith());
    await vi.waitFor(() => expect(answers).toHaveLength(2));
    answers[1]?.(barWith(step));
    await vi.waitFor(() => expect(ids()).toEqual(['hot']));
  });

  it('asks for nothing when nothing is being read', async () => {
    const { client, answers, ids } = openBar(barWith());
    answers[0]?.(barWith());
    await vi.waitFor(() => expect(client.isFetching()).toBe(0));
    takeIn(client, step, rooms);
    expect(ids()).toEqual(['hot']);
    expect(answers).toHaveLength(1);
  });
});
