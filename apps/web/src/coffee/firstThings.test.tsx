import type { Bar } from '@tempera/contract/bar';
import type { Session } from '@tempera/contract/team';
import { usualUnits } from '@tempera/core/house';
import { cleanup, screen } from '@testing-library/react';
import { afterEach, describe, expect, it, vi } from 'vitest';
import { serve } from '../ui/testAnswers.ts';
import { renderPart } from '../ui/testRender.tsx';
import { FirstThings } from './FirstThings.tsx';

afterEach(() => {
  cleanup();
  vi.unstubAllGlobals();
});

const session = (role: Session['person']['role']): Session => ({
  person: { id: 'p', name: 'Ines', role },
  site: { id: 's', name: 'Shed', timeZone: 'UTC', dayStartsMin: 240 },
  units: usualUnits,
});
const bar = {
  counters: [{ id: 'c' }],
  machines: [{ id: 'm', groups: [] }],
  grinders: [],
  waiting: [{ id: 'g', name: 'Spade' }],
} as unknown as Bar;
const lines = (): (string | null)[] => screen.getAllByRole('listitem').map((item) => item.textContent);

describe('what a new bar needs first', () => {
  it('is asked in an order that works, and ticked as it is done', async () => {
    serve({ '/api/bar/baskets': { sheets: [{ id: 'b' }] }, '/api/coffee/stock': { coffees: [], bags: [] } });
    renderPart(<FirstThings bar={bar} session={session('head')} />);
    await screen.findByText('Add the basket', { selector: '[data-done="true"] a' });
    const ticked = lines().map((line) => line?.includes('done') ?? false);
    // Counter, machine, basket and grinder; not yet the groups that hang in the machine, nor recipe, coffee and bag.
    expect(ticked).toEqual([true, true, true, false, true, false, false, false, false]);
    expect(screen.getByText('Add its group heads').closest('li')?.dataset.next).toBe('true');
  });

  it('is no question for somebody who may not set it up', () => {
    serve({});
    renderPart(<FirstThings bar={bar} session={session('barista')} />);
    expect(screen.queryByRole('link')).toBeNull();
  });
});
