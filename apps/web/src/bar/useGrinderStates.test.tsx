import type { Bar } from '@tempera/contract/bar';
import { usualHouse } from '@tempera/contract/policy';
import { emptyMemory, packMemory } from '@tempera/core/calibration';
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { act, renderHook } from '@testing-library/react';
import type { ReactNode } from 'react';
import { describe, expect, it } from 'vitest';
import { OutboxContext } from '../kernel/facts.tsx';
import type { Entry, Outbox } from '../kernel/outbox.ts';
import { waitingOutbox } from '../kernel/testOutbox.ts';
import { useBar } from './queries.ts';
import { useGrinderStates } from './useGrinderStates.ts';
import { useStandingFacts } from './useStandingFacts.ts';

const now = Date.parse('2031-05-04T07:00:00Z');
const lock = (grinderId: string, minutesAgo: number) => ({
  id: `lock ${grinderId}`,
  kind: 'lock',
  at: new Date(now - minutesAgo * 60_000).toISOString(),
  grinderId,
  groupId: 'g2',
  personId: 'ines',
  skewMs: null,
  body: { setting: 30, nextCheckMin: 60, expected: { timeS: 27, lowS: 25, highS: 29 } },
});
/** A house that looks by the clock, every hour. */
const house = { ...usualHouse, recheck: 'hours', longestCheckMin: 60 };
const grinder = {
  stepMarks: 1,
  finer: 'down',
  dialMin: 0,
  dialMax: 60,
  secondsPerMark: 2.5,
  retentionG: null,
  others: [],
  recipe: { doseG: 18, yieldG: 36, doseToleranceG: 0.3, timeFrom: 'pump', timeMinS: 25, timeMaxS: 30 },
};
const bar = {
  house,
  recipesNamed: [],
  memory: { upTo: '2031-05-04T02:00:00Z', state: packMemory(emptyMemory) },
  grinders: [
    { ...grinder, id: 'house', name: 'House', seedSetting: 20 },
    { ...grinder, id: 'guest', name: 'Guest', seedSetting: 5 },
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

/** An outbox with what was written and not sent. */
async function unsent(entries: object[]): Promise<Outbox> {
  const outbox = waitingOutbox(entries as Entry[]);
  await outbox.load();
  return outbox;
}

async function standingsWith(entries: object[]) {
  const outbox = await unsent(entries);
  const client = new QueryClient({ defaultOptions: { queries: { enabled: false } } });
  const wrapper = ({ children }: { children: ReactNode }) => (
    <QueryClientProvider client={client}>
      <OutboxContext value={outbox}>{children}</OutboxContext>
    </QueryClientProvider>
  );
  return renderHook(() => useGrinderStates(bar, now), { wrapper }).result.current;
}

describe('the bar with today’s aims', () => {
  it('is the very same for all who ask, and stays it until something was read or taste changed something', async () => {
    const outbox = await unsent([]);
    const client = new QueryClient({ defaultOptions: { queries: { enabled: false } } });
    client.setQueryData(['bar'], bar);
    const wrapper = ({ children }: { children: ReactNode }) => (
      <QueryClientProvider client={client}>
        <OutboxContext value={outbox}>{children}</OutboxContext>
      </QueryClientProvider>
    );
    const asked = () => renderHook(() => ({ bar: useBar().data, facts: useStandingFacts() }), { wrapper }).result;
    const [one, other] = [asked(), asked()];
    const before = one.current.bar;
    expect(other.current.bar).toBe(before);
    expect(other.current.facts).toBe(one.current.facts);

    const at = new Date(now).toISOString();
    const written = { at, skewMs: 0, siteId: 'garden', personId: 'ines', grinderId: 'house', groupId: null };
    await act(() => outbox.add([{ ...written, id: 'purge', kind: 'purge', body: { purgeG: 12 } }]));
    expect(one.current.bar).toBe(before);
    expect(one.current.facts).toHaveLength(3);
    expect(other.current.facts).toBe(one.current.facts);

    const [house, guest] = before!.grinders;
    const changes = [{ lever: 'yield' as const, by: 0.05 }];
    const body = { step: 'aimKept' as const, grinderId: 'house', changes, holdsUntil: '2031-05-05T02:00:00Z', days: 2 };
    const yesterday = { ...written, at: '2031-05-03T12:00:00.000Z', kind: 'step' as const, grinderId: null };
    await act(() => outbox.add([{ ...yesterday, id: 'kept', body }]));
    expect(other.current.bar).toBe(one.current.bar);
    expect(one.current.bar?.grinders[0]?.recipe.yieldG).toBeCloseTo(house!.recipe.yieldG * 1.05, 1);
    expect(one.current.bar?.grinders[1]).toBe(guest);
  });
});

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
