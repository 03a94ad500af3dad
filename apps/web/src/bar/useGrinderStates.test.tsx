import type { Bar } from '@tempera/contract/bar';
import { renderHook } from '@testing-library/react';
import type { ReactNode } from 'react';
import { describe, expect, it } from 'vitest';
import { OutboxContext } from '../kernel/facts.tsx';
import { Outbox, type Entry } from '../kernel/outbox.ts';
import { useGrinderStates } from './useGrinderStates.ts';

const now = Date.parse('2031-05-04T07:00:00Z');
const lock = (grinderId: string, minutesAgo: number) => ({
  id: `lock ${grinderId}`,
  kind: 'lock',
  at: new Date(now - minutesAgo * 60_000).toISOString(),
  grinderId,
  groupId: 'g2',
  personId: 'ines',
  skewMs: null,
  body: { setting: 30, nextCheckMin: 60 },
});
const bar = {
  grinders: [
    { id: 'house', name: 'House', seedSetting: 20, others: [] },
    { id: 'guest', name: 'Guest', seedSetting: 5, others: [] },
  ],
  machines: [
    {
      groups: [
        { id: 'g1', name: 'Group 1' },
        { id: 'g2', name: 'Group 2' },
      ],
    },
  ],
  facts: [lock('house', 10), lock('guest', 90)],
  steps: [],
} as unknown as Bar;

async function standingsWith(entries: object[]) {
  const outbox = new Outbox({ read: () => Promise.resolve(entries as Entry[]), change: () => Promise.resolve() }, () =>
    Promise.reject(new Error('not sent here')),
  );
  await outbox.load();
  const wrapper = ({ children }: { children: ReactNode }) => <OutboxContext value={outbox}>{children}</OutboxContext>;
  return renderHook(() => useGrinderStates(bar, now), { wrapper }).result.current;
}

describe('how the grinders of the bar stand', () => {
  it('names the one whose check fell due, and the group each was used on', async () => {
    const { all, next } = await standingsWith([]);
    expect(all.map(({ state }) => state.standing)).toEqual(['held', 'due']);
    expect(next?.grinder.name).toBe('Guest');
    expect(all[0]?.lastGroup?.name).toBe('Group 2');
  });

  it('counts what this device has written and not sent, but nothing that was refused', async () => {
    const move = { ...lock('house', 1), id: 'move', kind: 'collarMove', groupId: null, body: { from: 30, to: 33 } };
    const { all, next } = await standingsWith([{ fact: move, refusal: null }]);
    expect(all[0]?.state).toMatchObject({ standing: 'dialling', setting: 33, shotsSince: 0 });
    expect(next?.grinder.name).toBe('House');
    const refused = await standingsWith([{ fact: move, refusal: 'No.' }]);
    expect(refused.all[0]?.state).toMatchObject({ standing: 'held', setting: 30 });
  });
});
