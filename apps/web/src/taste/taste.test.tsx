import { usualHouse } from '@tempera/contract/policy';
import type { Session } from '@tempera/contract/team';
import { emptyMemory, packMemory } from '@tempera/core/calibration';
import { usualUnits } from '@tempera/core/house';
import { untasted } from '@tempera/core/taste';
import { cleanup, fireEvent, screen } from '@testing-library/react';
import { Route, Routes } from 'react-router';
import { afterEach, beforeAll, describe, expect, it, vi } from 'vitest';
import { OutboxContext } from '../kernel/facts.tsx';
import { standInOutbox } from '../kernel/testOutbox.ts';
import { serve } from '../ui/testAnswers.ts';
import { renderPart } from '../ui/testRender.tsx';
import { TastePage } from './TastePage.tsx';

const session: Session = {
  person: { id: 'ines', name: 'Ines', role: 'head' },
  site: { id: 'site', name: 'Shed', timeZone: 'UTC', dayStartsMin: 0 },
  units: usualUnits,
};
const recipe = {
  id: 'double 1',
  recipeId: 'double',
  name: 'House double',
  doseG: 18,
  doseToleranceG: 0.3,
  doseNoMore: false,
  yieldG: 36,
  yieldToleranceG: 1.5,
  tempC: 93,
  timeFrom: 'pump',
  timeMinS: 25,
  timeMaxS: 30,
  soakS: 0,
  taste: null,
};
const grinder = {
  id: 'house',
  name: 'House',
  coffee: 'Canopy blend',
  coffeeId: 'canopy',
  roast: 'medium',
  decaf: false,
  stepMarks: 1,
  finer: 'down',
  dialMin: 0,
  dialMax: 40,
  secondsPerMark: 2.5,
  retentionG: null,
  rateGps: 2,
  seedSetting: 20,
  readsDial: true,
  doser: 'direct',
  recipe,
  dualWalled: false,
  basketG: { min: 16, max: 19 },
  levelG: null,
  fillStepG: null,
  others: [],
};

/** The page for a sour cup that ran so long: a machine that sets its temperature or not, a collar at a mark of 0 to 40. */
async function sour(
  timeS: number,
  { setsTemp = true, setting = 20, recipeVersionId = 'double 1' } = {},
): Promise<HTMLElement> {
  const by = { receivedAt: new Date().toISOString(), personId: 'ines', skewMs: null };
  const secondsAgo = (seconds: number): string => new Date(Date.now() - 1_000 * seconds).toISOString();
  const shot = {
    ...by,
    id: 'shot',
    kind: 'shot',
    at: secondsAgo(60),
    grinderId: 'house',
    groupId: 'g1',
    body: { recipeVersionId, setting, doseG: 18, yieldG: 36, timeS, firstDropS: null, flaw: null },
  };
  const sheet = { ...untasted, step: 'tasted', grinderId: 'house', shotId: 'shot', tasterId: 'ines', acidity: 9 };
  const tasted = {
    ...by,
    id: 'tasted',
    kind: 'step',
    at: secondsAgo(30),
    body: { ...sheet, sourBitter: null, weakStrong: null, notes: [], tdsPct: null },
  };
  serve({
    '/api/session': session,
    '/api/welcome': { sites: [], demo: null },
    '/api/bar': {
      machines: [{ id: 'fern', name: 'Fern', lever: false, setsTemp, groups: [{ id: 'g1', name: 'Group 1' }] }],
      grinders: [{ ...grinder, seedSetting: setting }],
      house: usualHouse,
      facts: [shot],
      steps: [tasted],
      recipesNamed: [],
      memory: { upTo: new Date(0).toISOString(), state: packMemory(emptyMemory) },
    },
  });
  renderPart(
    <OutboxContext value={standInOutbox().outbox}>
      <Routes>
        <Route path="/taste/:grinderId" element={<TastePage session={session} />} />
      </Routes>
    </OutboxContext>,
    '/taste/house',
  );
  return screen.findByRole('region', { name: 'What the tasters say' });
}
const button = (name: RegExp): HTMLElement | null => screen.queryByRole('button', { name });

beforeAll(() => {
  Element.prototype.scrollIntoView = () => undefined;
});
afterEach(() => {
  cleanup();
  vi.unstubAllGlobals();
});

describe('a sour cup', () => {
  it('is answered by the house’s lever and beside it by the others that this bar has', async () => {
    const said = await sour(27.5);
    expect(said.textContent).toMatch(/It is too sour. One change: Stop at 38.2 g/);
    expect(button(/^One mark finer/)).toBeTruthy();
    expect(button(/hotter/)).toBeTruthy();
  });

  it('asks no machine for a temperature that it does not set, and no collar to go beyond its end', async () => {
    await sour(27.5, { setsTemp: false, setting: 0 });
    expect(button(/^Stop at 38.2 g/)).toBeTruthy();
    expect(button(/hotter/)).toBeNull();
    expect(button(/finer/)).toBeNull();
    fireEvent.click(button(/^Other numbers/)!);
    expect(screen.queryByRole('textbox', { name: /^Water/ })).toBeNull();
    fireEvent.change(screen.getByRole('textbox', { name: /^Finer/ }), { target: { value: '2' } });
    expect(screen.getByText('This dial runs from 0 to 40.')).toBeTruthy();
  });

  it('that ran far outside its window is brought into it first; whoever knows better changes it all the same', async () => {
    const said = await sour(20);
    expect(said.textContent).toMatch(
      /too sour. But it ran 5.0 s too fast: bring it into its window first, then taste./,
    );
    expect(screen.getByRole('link', { name: 'To the bench' }).getAttribute('href')).toBe('/bench/house/g1');
    expect(button(/^Stop at 38.2 g/)).toBeTruthy();
  });

  it('that lay outside by no more than shots scatter, or is another recipe’s, is judged by taste', async () => {
    expect((await sour(24.4)).textContent).toMatch(/One change: /);
    cleanup();
    expect((await sour(20, { recipeVersionId: 'single 1' })).textContent).toMatch(/One change: /);
  });
});
