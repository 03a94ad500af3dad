import { usualUnits } from '@tempera/core/house';
import { act, cleanup, screen, within } from '@testing-library/react';
import { afterEach, describe, expect, it, vi } from 'vitest';
import { renderPart } from '../ui/testRender.tsx';
import { CoffeePage } from './CoffeePage.tsx';
import { UsePage } from './UsePage.tsx';

vi.mock('./UseChart.tsx', () => ({ default: () => null }));

afterEach(() => {
  cleanup();
  vi.unstubAllGlobals();
});

const session = {
  person: { id: 'ines', name: 'Ines', role: 'head' as const },
  site: { id: 's', name: 'Shed', timeZone: 'UTC', dayStartsMin: 240 },
  units: usualUnits,
};
const bar = {
  steps: [],
  grinders: [
    { id: 'house', name: 'House' },
    { id: 'guest', name: 'Guest' },
  ],
  waiting: [],
};
const day = (on: string, grinderId: string, calibrationG: number, servedG: number | null, cost: number | null) => ({
  day: on,
  grinderId,
  calibrationG,
  servedG,
  calibrationCost: cost,
});

function open(days: unknown[] | null): void {
  vi.stubGlobal('fetch', (address: string) =>
    address.endsWith('/coffee/use') && days === null
      ? Promise.reject(new TypeError('offline'))
      : Promise.resolve(Response.json(address.endsWith('/coffee/use') ? { currency: 'EUR', days } : bar)),
  );
  renderPart(<UsePage session={session} />);
}
const cells = (row: HTMLElement): string[] =>
  within(row)
    .getAllByRole('cell')
    .map(({ textContent }) => textContent);

describe('what calibrating takes', () => {
  it('is summed by grinder, its share against what was served on the same days', async () => {
    open([
      day('2031-05-05', 'house', 100, null, 2.5),
      day('2031-05-04', 'house', 90, 1_710, 2.25),
      day('2031-05-04', 'guest', 60, 340, null),
    ]);
    const byGrinder = await screen.findByRole('table', { name: 'Four weeks, by grinder' });
    const [, guest, house] = within(byGrinder).getAllByRole('row');
    // 90 g of 1.8 kg on the day that is known, not 190 g.
    expect(cells(house!)).toEqual(['0.2 kg', '1.7 kg', '5 %', '€4.75']);
    expect(cells(guest!)).toEqual(['60 g', '0.3 kg', '15 %', 'no price']);
    const byDay = screen.getByRole('table', { name: 'By day' });
    const [, today, yesterday] = within(byDay).getAllByRole('row');
    expect(cells(today!).slice(2)).toEqual(['–', 'House, 100.0 g']);
    expect(cells(yesterday!)).toEqual(['150.0 g', 'no price', '7 %', 'House, 90.0 g']);
  });

  it('says that nothing was ground yet', async () => {
    open([]);
    expect(await screen.findByText(/Nothing was ground yet/)).toBeTruthy();
  });

  it('says what it cannot reach, and tries again', async () => {
    open(null);
    expect(await screen.findByRole('button', { name: /again/ })).toBeTruthy();
  });
});

describe('the coffees', () => {
  it('stand on the page at once, with what is left of them, and never in two steps', async () => {
    let answer: (use: Response) => void = () => undefined;
    const late = new Promise<Response>((resolve) => {
      answer = resolve;
    });
    const empty = { coffees: [], bags: [] };
    vi.stubGlobal('fetch', (address: string) =>
      address.endsWith('/coffee/use') ? late : Promise.resolve(Response.json(address.endsWith('/bar') ? bar : empty)),
    );
    renderPart(<CoffeePage session={session} />);
    await act(async () => new Promise((resolve) => setTimeout(resolve)));
    expect(screen.queryByRole('link', { name: 'Take a bag in' })).toBeNull();
    answer(Response.json({ days: [], hoppers: [], daily: [] }));
    expect(await screen.findByRole('link', { name: 'Take a bag in' })).toBeTruthy();
  });
});
