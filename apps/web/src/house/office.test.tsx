import type { RecipeVersion } from '@tempera/contract/house';
import { usualUnits } from '@tempera/core/house';
import { cleanup, fireEvent, screen, waitFor, within } from '@testing-library/react';
import { Route, Routes } from 'react-router';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { renderPart } from '../ui/testRender.tsx';
import { DrinksPage } from './DrinksPage.tsx';
import { RecipeEditPage } from './RecipeEditPage.tsx';
import { freshRecipe } from './recipeFields.ts';

const session = {
  person: { id: 'ines', name: 'Ines', role: 'head' as 'head' | 'barista' },
  site: { id: 's', name: 'Shed', timeZone: 'UTC', dayStartsMin: 240 },
  units: usualUnits,
};
const recipe: RecipeVersion = {
  ...freshRecipe,
  id: 'v1',
  recipeId: '00000000-0000-4000-8000-000000000001',
  version: 1,
  name: 'House double',
  basketId: '00000000-0000-4000-8000-000000000018',
  taste: null,
  roaster: null,
  retired: false,
  reason: 'the first one',
  validFrom: '2031-05-01',
  approvedBy: 'Ines',
  writtenAt: '2031-05-01T06:00:00Z',
};
const sheets = (...made: [string, object][]) => ({
  sheets: made.map(([id, sheet]) => ({ id, revision: 1, retired: false, changedBy: null, changedAt: null, sheet })),
});
const drink = (name: string, change: object = {}) => ({
  name,
  recipeId: recipe.recipeId,
  share: 1,
  baskets: 1,
  milkMl: 0,
  foamMm: 0,
  milkTempC: 60,
  waterMl: 0,
  waterFirst: false,
  orders: 40,
  position: 1,
  ...change,
});
const bar = {
  machines: [{ id: 'fern', name: 'Fern', groups: [{ id: '1', name: 'Group 1' }] }],
  steps: [],
  grinders: [{ id: 'house', name: 'House', rateGps: 2, recipe }],
  fixtures: [],
};

const answers = new Map<string, unknown>();
const sent = vi.fn<(body: unknown) => void>();
beforeEach(() => {
  localStorage.clear();
  answers.clear();
  sent.mockClear();
  answers.set('/house/recipes-in-force', { recipes: [recipe] });
  answers.set('/bar', bar);
  answers.set(
    '/bar/baskets',
    sheets([recipe.basketId ?? '', { name: 'Double 18', minG: 16.5, maxG: 19, wall: 'single' }]),
  );
  answers.set(`/house/recipes/${recipe.recipeId}`, { versions: [recipe] });
  vi.stubGlobal('fetch', (address: string, init?: RequestInit) => {
    if (init?.method === 'POST') sent(JSON.parse(init.body as string));
    const known = [...answers.keys()].find((end) => address.endsWith(end));
    return Promise.resolve(Response.json(known === undefined ? { sheets: [] } : answers.get(known)));
  });
});
afterEach(() => {
  cleanup();
  vi.unstubAllGlobals();
});

describe('the drinks page', () => {
  it('says what a card without drinks needs', async () => {
    renderPart(<DrinksPage session={session} />);
    expect(await screen.findByText(/No drink is on the card yet/)).toBeTruthy();
  });

  it('cuts every drink from its recipe, in grams, and bounds the pace by its bottleneck', async () => {
    answers.set(
      '/house/drinks',
      sheets(
        ['d1', drink('Double')],
        ['d2', drink('Half', { baskets: 0.5, position: 2, orders: 20 })],
        ['d3', drink('Flat', { milkMl: 130, foamMm: 5, position: 3 })],
      ),
    );
    renderPart(<DrinksPage session={session} />);
    const row = async (name: RegExp) => within(await screen.findByRole('row', { name }));
    expect((await row(/^Double/)).getByText('18.0 g')).toBeTruthy();
    expect((await row(/^Half/)).getAllByText('18.0 g').length).toBeGreaterThan(0);
    expect((await row(/^Flat/)).getByText(/^130 ml, 13\d\.\d g$/)).toBeTruthy();
    const pace = await screen.findByRole('region', { name: 'Pace' });
    const perHour = (): number => Number(/About (\d+)/.exec(pace.textContent)?.[1]);
    const two = perHour();
    expect(two).toBeGreaterThan(20);
    fireEvent.click(within(pace).getByRole('radio', { name: '1' }));
    expect(perHour()).toBeLessThanOrEqual(two);
    expect(within(pace).getByText(/^Held up by /)).toBeTruthy();
  });

  it('is added to by those who keep the house book only', async () => {
    answers.set('/house/drinks', sheets(['d1', drink('Double')]));
    renderPart(<DrinksPage session={{ ...session, person: { ...session.person, role: 'barista' } }} />);
    await screen.findByRole('row', { name: /^Double/ });
    expect(screen.queryByRole('link', { name: 'Add a drink' })).toBeNull();
  });
});

/** The editor at its own address, as the app would open it. */
function openEditor(role: 'head' | 'barista' = 'head', at = `/house/recipes/${recipe.recipeId}/edit`): void {
  const editor = <RecipeEditPage session={{ ...session, person: { ...session.person, role } }} />;
  renderPart(
    <Routes>
      <Route path="/house/recipes/:recipeId/edit" element={editor} />
      <Route path="/house/recipes/new" element={editor} />
      <Route path="/house/recipes/:recipeId" element={<p>the recipe</p>} />
    </Routes>,
    at,
  );
}
const type = (name: RegExp | string, text: string): void =>
  void fireEvent.change(screen.getByRole('textbox', { name }), { target: { value: text } });

describe('the first version of a recipe', () => {
  it('goes along with a cup that takes a minute, where nobody wrote otherwise', async () => {
    openEditor('head', '/house/recipes/new');
    const shows = (name: string): string => screen.getByRole<HTMLInputElement>('textbox', { name }).value;
    await screen.findByRole('textbox', { name: 'Yield, g' });
    type('First drop, until, s', '20');
    type('At least, s', '55');
    type('At most, s', '65');
    type('Yield, g', '320');
    await waitFor(() => expect(shows('Yield, give or take, g')).toBe('13.5'));
    expect(shows('First drop, from, s')).toBe('9');
    expect(shows('First drop, until, s')).toBe('20');
  });
});

describe('the next version of a recipe', () => {
  it('is written by a head barista only', async () => {
    openEditor('barista');
    expect(await screen.findByText(/Only a head barista changes the house book/)).toBeTruthy();
  });

  it('shows what changes, wants a reason, and is based on what was seen', async () => {
    openEditor();
    await screen.findByRole('heading', { level: 1, name: 'The next version of House double' });
    type(/^Dose, g$/, '18.5');
    const why = screen.getByRole('region', { name: 'Why' });
    expect(within(why).getByRole('row', { name: /^Dose.*18\.0 g.*18\.5 g/ })).toBeTruthy();
    fireEvent.click(screen.getByRole('button', { name: 'Approve this version' }));
    expect(sent).not.toHaveBeenCalled();
    type(/^Why/, 'the new crop wants more');
    fireEvent.click(screen.getByRole('button', { name: 'Approve this version' }));
    await waitFor(() => expect(sent).toHaveBeenCalled());
    expect(sent.mock.calls[0]?.[0]).toMatchObject({
      basedOn: 1,
      reason: 'the new crop wants more',
      recipe: { doseG: 18.5, yieldG: 36, retired: false },
    });
    expect(await screen.findByText('the recipe')).toBeTruthy();
  });

  it('warns of a dose that its basket cannot hold, and keeps what was typed', async () => {
    openEditor();
    await screen.findByRole('textbox', { name: /^Dose, g$/ });
    type(/^Dose, g$/, '20');
    expect(screen.getByText(/it would touch the screen/)).toBeTruthy();
    type(/^Dose, g$/, 'much');
    type(/^Why/, 'to try');
    fireEvent.click(screen.getByRole('button', { name: 'Approve this version' }));
    expect(screen.getByRole<HTMLInputElement>('textbox', { name: /^Dose, g$/ }).value).toBe('much');
    expect(sent).not.toHaveBeenCalled();
  });
});
