import type { RecipeVersion } from '@tempera/contract/house';
import { usualHouse, type HousePolicy } from '@tempera/contract/policy';
import type { Session } from '@tempera/contract/team';
import { emptyMemory, packMemory } from '@tempera/core/calibration';
import { glassWeight } from '@tempera/core/capture';
import { usualUnits } from '@tempera/core/house';
import { act, cleanup, fireEvent, screen, waitFor } from '@testing-library/react';
import { Route, Routes } from 'react-router';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { standInOutbox } from '../kernel/testOutbox.ts';
import { OutboxContext } from '../kernel/facts.tsx';
import { renderPart } from '../ui/testRender.tsx';
import { BenchPage } from './BenchPage.tsx';

vi.mock('../capture/LiveChart.tsx', () => ({ LiveChart: () => null }));

/** A bench as it stands in a café without devices: everything is typed, and every fact goes into this outbox. */
const session = {
  person: { id: 'ines', name: 'Ines', role: 'head' },
  units: usualUnits,
  site: { id: 'site', name: 'Glasshouse', timeZone: 'Europe/Lisbon', dayStartsMin: 240 },
} as unknown as Session;
const recipe = {
  id: 'double 1',
  recipeId: 'double',
  name: 'House double',
  doseG: 18,
  doseToleranceG: 0.3,
  doseNoMore: false,
  yieldG: 36,
  yieldToleranceG: 1.5,
  timeFrom: 'pump',
  timeMinS: 25,
  timeMaxS: 30,
  firstDropMinS: 4,
  firstDropMaxS: 8,
  soakS: 0,
  pauseS: 0,
  pressureShape: '',
  tampG: null,
} as unknown as RecipeVersion;
const basket = { dualWalled: false, basketG: { min: 16.5, max: 19 }, levelG: 17.6, fillStepG: 0.7 };
const single = {
  ...recipe,
  id: 'single 1',
  recipeId: 'single',
  name: 'House single',
  doseG: 9,
  yieldG: 21,
  timeMinS: 19,
  timeMaxS: 24,
};

interface Given {
  house?: Partial<HousePolicy>;
  grinder?: object;
  machine?: object;
  facts?: object[];
}

function serve({ house = {}, grinder = {}, machine = {}, facts = [] }: Given): void {
  const bar = {
    machines: [
      {
        id: 'fern',
        name: 'Fern',
        lever: false,
        groups: ['1', '2'].map((n) => ({ id: `g${n}`, name: `Group ${n}`, machineId: 'fern', position: Number(n) })),
        ...machine,
      },
    ],
    grinders: [
      {
        id: 'house',
        name: 'House',
        coffee: 'Canopy blend',
        coffeeId: 'canopy',
        stepMarks: 1,
        finer: 'down',
        dialMin: 1,
        dialMax: 60,
        secondsPerMark: 2.5,
        retentionG: null,
        rateGps: 2,
        seedSetting: 30,
        readsDial: true,
        unlocksFirst: false,
        doser: 'direct',
        bagPast: false,
        recipe,
        ...basket,
        others: [],
        ...grinder,
      },
    ],
    house: { ...usualHouse, ...house },
    facts,
    steps: [],
    fixtures: [],
    waiting: [],
    recipesNamed: [],
    memory: { upTo: new Date(0).toISOString(), state: packMemory(emptyMemory) },
  };
  const answers: Record<string, unknown> = {
    '/api/bar': bar,
    '/api/benches/house': { facts },
    '/api/session': session,
    '/api/welcome': { sites: [], demo: null },
    '/api/bar/learned': { grinders: [], machines: [], groups: [], drips: [], glass: glassWeight([]) },
  };
  vi.stubGlobal('fetch', (address: string) => {
    const known = answers[new URL(address, 'http://bar').pathname];
    return Promise.resolve(Response.json(known ?? { sheets: [], facts: [], coffees: [], bags: [], steps: [] }));
  });
}

async function open(given: Given = {}, path = '/bench/house/g1') {
  serve(given);
  const { outbox, written } = standInOutbox();
  renderPart(
    <OutboxContext value={outbox}>
      <Routes>
        <Route path="/bench/:grinderId/:groupId" element={<BenchPage session={session} />} />
      </Routes>
    </OutboxContext>,
    path,
  );
  await screen.findByRole('region', { name: 'Shot' });
  return { written, bodies: (kind: string) => written().flatMap((fact) => (fact.kind === kind ? [fact.body] : [])) };
}

const button = (name: string | RegExp): HTMLButtonElement => screen.getByRole('button', { name });
const press = (name: string | RegExp): boolean => fireEvent.click(button(name));
const field = (name: string | RegExp): HTMLInputElement => screen.getByRole('textbox', { name });
const type = (name: string | RegExp, value: string): boolean => fireEvent.change(field(name), { target: { value } });
const says = (): string => screen.getByRole('heading', { level: 1 }).textContent;
const enter = (timeS: string, yieldG = '36'): void => {
  press('Enter a shot');
  type('Time, s', timeS);
  type('Yield, g', yieldG);
  press('Keep this shot');
};

beforeEach(() => localStorage.clear());
afterEach(() => {
  cleanup();
  vi.useRealTimers();
  vi.unstubAllGlobals();
});

describe('a bench without devices', () => {
  it('goes from the dose to the shot to the advice, and does what is advised', async () => {
    const { bodies } = await open();
    expect(says()).toBe('Weigh 18.0 g');
    type('Weighed dose, g', '18.1');
    press('Keep 18.1 g');
    expect(says()).toBe('Lock in and pull the shot');
    expect(bodies('dose')).toEqual([{ setting: 30, doseG: 18.1, grindTimeS: 9, measuredBy: 'hand' }]);
    expect(screen.getByText('18.1 g in 9.0 s: the time fits.')).toBeTruthy();
    enter('20');
    expect(says()).toMatch(/^Turn \d marks? finer: 30 to \d\d$/);
    expect(screen.getByRole('region', { name: 'Advice' }).textContent).toMatch(/with the burrs turning.*Purge/);
    press('Do it');
    expect(bodies('collarMove')).toHaveLength(1);
    expect(bodies('purge')).toHaveLength(1);
    expect(says()).toBe('Weigh 18.0 g');
  });

  it('can pull, weigh, enter, turn and lock against any advice', async () => {
    const { bodies } = await open();
    enter('20');
    expect(says()).toMatch(/^Turn/);
    expect(button(/^Pull/).disabled).toBe(false);
    press('Weigh another dose');
    expect(says()).toBe('Weigh 18.0 g and pull the same again');
    press('Something else');
    press('1 coarser');
    press('Write it down');
    expect(bodies('collarMove')).toMatchObject([{ from: 30, to: 31 }]);
    enter('18');
    press('Something else');
    press(/^Close enough: lock at 31/);
    expect(bodies('lock')).toMatchObject([{ setting: 31 }]);
    expect((bodies('lock')[0] as { chance: number }).chance).toBeLessThan(0.2);
  });

  it('writes a little less coffee and a little coarser in one go', async () => {
    const { written } = await open();
    enter('27');
    press('Something else');
    press('1 coarser');
    type(/^Another dose along with it/, '17.6');
    press('Write it down');
    expect(written().map(({ kind }) => kind)).toEqual(['shot', 'collarMove', 'dose']);
    expect(says()).toBe('Lock in and pull the shot');
  });

  it('times a pull, takes its first drop, and waits for its numbers', async () => {
    const { bodies } = await open();
    press(/^Pull/);
    await screen.findByRole('button', { name: /^Stop/ });
    press('First drop');
    press(/^Stop/);
    await screen.findByRole('textbox', { name: 'Yield, g' });
    type('Time, s', '27');
    fireEvent.submit(field('Yield, g').form!);
    expect(bodies('shot')).toMatchObject([{ yieldG: 36, timeS: 27, measured: { dose: 'timed' } }]);
    expect(screen.getByRole('region', { name: 'Shot 1' })).toBeTruthy();
  });

  it('throws a pull away, and nothing is written', async () => {
    const { written } = await open();
    press(/^Pull/);
    await screen.findByRole('button', { name: /^Stop/ });
    press('It was none');
    await screen.findByRole('button', { name: /^Pull/ });
    expect(written()).toEqual([]);
  });

  it('asks what became of a pull that was left running, and takes that it choked', async () => {
    const draft = { id: 'left', startedAtMs: Date.now() - 150_000, stoppedAtS: null, doseG: 18, groupId: 'g1' };
    localStorage.setItem('tempera.pull.house', JSON.stringify({ ...draft, setting: 30, byScale: false }));
    const { bodies } = await open();
    await screen.findByText(/It has run for 2 min 30 s/);
    press(/^It choked/);
    expect(bodies('shot')).toMatchObject([{ flaw: 'choke', yieldG: 1 }]);
    await waitFor(() => expect(says()).toMatch(/^Turn \d+ marks? coarser/));
  });

  it('asks about a pull of another group, and takes it over', async () => {
    const draft = { id: 'there', startedAtMs: Date.now() - 5_000, stoppedAtS: null, doseG: 18, groupId: 'g2' };
    localStorage.setItem('tempera.pull.house', JSON.stringify({ ...draft, setting: 30, byScale: false }));
    await open();
    await screen.findByText(/It was started for Group 2; this is the bench of Group 1/);
    press('It is in Group 1');
    await screen.findByRole('button', { name: /^Stop/ });
  });

  it('notes what was felt, and turns a grinder that nobody has dialled in by it', async () => {
    const { bodies } = await open();
    press('Something else');
    press('Seen or felt');
    press('table salt');
    expect(bodies('seen')).toEqual([{ setting: 30, sign: 'salt' }]);
    press('Back to the bench');
    await waitFor(() => expect(says()).toMatch(/^Turn [4-9] marks finer/));
  });

  it('locks with the grind time of every recipe of the coffee, and the single finds it locked', async () => {
    const others = [{ recipe: single, ...basket }];
    const { bodies } = await open({ grinder: { others }, house: { lockRule: 'firstGood' } });
    type('Weighed dose, g', '18');
    press('Keep 18.0 g');
    enter('27');
    expect(says()).toBe('Lock it at 30');
    press('Lock at 30');
    expect(bodies('lock')).toMatchObject([
      { doseTimeS: 9, otherDoses: [{ recipeVersionId: 'single 1', doseTimeS: 4.7 }] },
    ]);
    expect(says()).toBe('Locked: it holds its window');
  });

  it('takes no dose of an hour ago for the one in the portafilter', async () => {
    const dose = (minutesAgo: number): object => ({
      id: 'dose',
      kind: 'dose',
      at: new Date(Date.now() - 60_000 * minutesAgo).toISOString(),
      personId: 'ines',
      grinderId: 'house',
      groupId: null,
      body: { setting: 30, doseG: 18.1, grindTimeS: 9, measuredBy: 'hand' },
    });
    await open({ facts: [dose(3)] });
    expect(says()).toBe('Lock in and pull the shot');
    cleanup();
    await open({ facts: [dose(60)] });
    expect(says()).toBe('Weigh 18.0 g');
  });

  it('tops a dose up: the whole is the shot’s, the first part the grind time’s', async () => {
    const { bodies } = await open();
    type('Weighed dose, g', '16');
    press('Top it up');
    type('With the rest, g', '18');
    press('Keep 18.0 g');
    expect(bodies('dose')).toMatchObject([{ doseG: 18, firstPartG: 16, grindTimeS: 9 }]);
    expect(screen.getByText(/^16.0 g in 9.0 s: grind 10.1 s next/)).toBeTruthy();
  });

  it('takes out what is over, said from the dose that is asked for, before it is pulled', async () => {
    const { bodies } = await open();
    type('Weighed dose, g', '19.4');
    expect(screen.getByText('1.4 g over')).toBeTruthy();
    press('Take 1.4 g out');
    type('What is left, g', '18.1');
    press('Keep 18.1 g');
    expect(bodies('dose')).toMatchObject([{ doseG: 18.1, firstPartG: 19.4, grindTimeS: 9 }]);
  });
});

describe('a bench of other hands', () => {
  it('fills to the line with an automat: one tap, its quantity dial kept', async () => {
    const { bodies } = await open({ house: { dosing: 'line' }, grinder: { doser: 'automat' } });
    expect(says()).toBe('Dose 18.0 g');
    type(/^Quantity dial/, '7');
    press('Under the line, about 16.9 g');
    expect(bodies('dose')).toMatchObject([
      { way: 'line', fill: 'under', doseG: 16.9, quantityDial: 7, grindTimeS: null },
    ]);
    expect(screen.getByText('Under the line, not weighed')).toBeTruthy();
  });

  it('names no number on a collar that shows none, unlocks it first, and runs the burrs for every move', async () => {
    await open({
      grinder: { readsDial: false, unlocksFirst: true },
      house: { burrsRun: 'always', purgeCount: 'doses' },
    });
    enter('36');
    expect(says()).toMatch(/^Turn \d marks? coarser$/);
    const advice = screen.getByRole('region', { name: 'Advice' }).textContent;
    expect(advice).toMatch(/Unlock the collar, turn \d marks? coarser, with the burrs turning, and lock it again/);
    expect(advice).toMatch(/Purge 1 dose/);
  });

  it('shows since when ground coffee waits in a chamber, and empties it before the new mark means anything', async () => {
    const { bodies } = await open({ grinder: { doser: 'chamber' } });
    press('Chamber filled');
    expect(screen.getByText('The chamber was filled just now.')).toBeTruthy();
    enter('20');
    expect(screen.getByRole('region', { name: 'Advice' }).textContent).toMatch(/Pull the chamber empty.*Purge/);
    press('Do it');
    // Emptied with the move: what is ground from now on is of the new mark.
    expect(screen.queryByText(/^The chamber was filled/)).toBeNull();
    press('Chamber filled');
    press('Chamber used up');
    expect(bodies('step')).toMatchObject(
      ['chamberFilled', 'chamberFilled', 'chamberEmptied'].map((what) => ({ what })),
    );
  });

  it('says what a lever asks for', async () => {
    const lever = {
      ...recipe,
      soakS: 6,
      pauseS: 4,
      pressureShape: 'Rising from the first drop',
      tampG: 850,
      tempC: 92,
    };
    await open({ grinder: { recipe: lever }, machine: { lever: true } });
    const head = screen.getByText(/A lever: time runs from its first pull/).textContent;
    expect(head).toMatch(/Let the water fall to 92.0 °C/);
    expect(head).toMatch(/Soak 6 s, pause 4 s/);
    expect(head).toMatch(/Rising from the first drop. Tamp with a push of 850 g/);
  });

  it('checks a group without dialling anything in', async () => {
    const { bodies } = await open({}, '/bench/house/g1?check=1');
    enter('24');
    expect(bodies('shot')).toMatchObject([{ check: true }]);
    await act(async () => Promise.resolve());
    expect(screen.queryByRole('region', { name: 'Advice' })).toBeNull();
  });
});
