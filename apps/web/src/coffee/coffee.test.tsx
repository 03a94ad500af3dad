import type { Bag, Stock } from '@tempera/contract/coffee';
import { cleanup, fireEvent, screen } from '@testing-library/react';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { renderPart } from '../ui/testRender.tsx';
import { freshnessIn, freshWord, nextBags, openWord } from './fresh.ts';
import { NewBag } from './NewBag.tsx';

const now = Date.parse('2031-05-20T09:00:00Z');
const kept = { revision: 1, retired: false, changedBy: null, changedAt: null };
const coffee = (id: string, name: string) => ({
  ...kept,
  id,
  sheet: {
    name,
    kind: 'blend' as const,
    decaf: false,
    roast: 'medium' as const,
    openBestH: 12,
    openStaleH: 16,
    roasterWords: '',
    restDays: 4,
    primeDays: 14,
    fadeDays: 28,
    pricePerKg: null,
    moreRecipes: [],
    recipeId: 'r',
  },
});
const bag = (id: string, roastedOn: string, change: Partial<Bag> = {}, coffeeId = 'canopy'): Bag => ({
  ...kept,
  id,
  coffee: coffeeId,
  state: 'closed',
  openedAt: null,
  grinderId: null,
  sheet: {
    coffeeId,
    roastedOn,
    weightG: 1_000,
    freezes: [],
    openedOn: null,
    finishedOn: null,
    portionOf: null,
    label: '',
  },
  ...change,
});
const stock: Stock = {
  coffees: [coffee('canopy', 'Canopy'), coffee('moss', 'Moss')],
  bags: [
    bag('young', '2031-05-12'),
    bag('old', '2031-05-08'),
    bag('old2', '2031-05-08'),
    bag('other', '2031-05-10', {}, 'moss'),
    bag('in', '2031-05-05', { state: 'hopper', grinderId: 'house', openedAt: '2031-05-20T05:00:00Z' }),
  ],
};

beforeEach(() => {
  vi.useFakeTimers({ now, toFake: ['Date'] });
  vi.stubGlobal(
    'fetch',
    vi.fn<typeof fetch>(() => Promise.resolve(Response.json(stock))),
  );
});
afterEach(() => {
  cleanup();
  vi.useRealTimers();
  vi.unstubAllGlobals();
});

describe('freshness in words', () => {
  it('counts from the noon of the roast, by the café’s clock', () => {
    const freshness = freshnessIn(stock, stock.bags[0]!, 'UTC', now);
    expect(freshness?.ageDays).toBeCloseTo(7.875, 3);
    expect(freshWord(freshness!)).toBe('Prime, 8 days old; fades in 6 days');
  });

  it.each([
    [0.5, 'just opened'],
    [3, 'open 3 h'],
    [14, 'open 14 h, best used soon'],
    [20, 'open 20 h: longer than it keeps'],
    [72, 'open 3 days: longer than it keeps'],
  ])('open for %f h: %s', (hours, says) => {
    expect(openWord(now - hours * 3_600_000, now)).toBe(says);
    // A coffee that keeps longer says so on its sheet.
    expect(openWord(now - hours * 3_600_000, now, null, [], { openBestH: 90, openStaleH: 99 })).not.toContain(',');
  });

  it('leaves out the bag that is in the hopper, and puts the first to fade first', () => {
    expect(nextBags(stock, 'canopy', 'UTC', now).map(({ bag: { id } }) => id)).toEqual(['old', 'old2', 'young']);
  });
});

describe('another bag at the grinder', () => {
  const recipe = {
    timeFrom: 'pump',
    timeMinS: 25,
    timeMaxS: 30,
    firstDropMinS: 4,
    firstDropMaxS: 8,
    soakS: 0,
    pauseS: 0,
  } as never;
  const open = (coffeeId: string | null) => {
    const onSave = vi.fn();
    renderPart(
      <NewBag
        grinder={{ id: 'house', name: 'House', coffeeId, recipe: coffeeId === null ? null : recipe }}
        timeZone="UTC"
        onClose={() => undefined}
        onSave={onSave}
      />,
    );
    return onSave;
  };

  it('is one more tap: the first to fade stands on top, alike ones once, with the shift to expect', async () => {
    const onSave = open('canopy');
    const first = await screen.findByRole('button', { name: /2 bags alike/ });
    // Three days younger than the one before: 27.5 s * 1 % * 3.
    expect(first.textContent).toContain('About 0.8 s slower, give or take 2.3 s');
    fireEvent.click(first);
    expect(onSave).toHaveBeenCalledWith({ roastedOn: '2031-05-08', bagId: 'old', coffeeId: 'canopy' });
  });

  it('of another coffee says so, in the fact too', async () => {
    const onSave = open('canopy');
    fireEvent.click(await screen.findByRole('button', { name: 'Another coffee' }));
    const moss = await screen.findByRole('button', { name: /^moss/ });
    expect(moss.textContent).toContain('the grind is to be found anew');
    fireEvent.click(moss);
    expect(onSave).toHaveBeenCalledWith(expect.objectContaining({ coffeeId: 'moss', otherCoffee: true }));
  });

  it('in an empty grinder may be of any coffee, and is nobody’s change', async () => {
    const onSave = open(null);
    fireEvent.click(await screen.findByRole('button', { name: /^moss/ }));
    expect(onSave).toHaveBeenCalledWith({ roastedOn: '2031-05-10', bagId: 'other', coffeeId: 'moss' });
  });

  it('that nobody listed needs a date at most', async () => {
    const onSave = open('canopy');
    fireEvent.click(await screen.findByText(/not in the list/));
    fireEvent.click(screen.getByRole('button', { name: 'It is in the hopper' }));
    expect(onSave).toHaveBeenCalledWith({ roastedOn: null });
  });
});
