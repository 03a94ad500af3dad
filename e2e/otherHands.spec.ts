import type { Page } from '@playwright/test';
import type { Bar } from '@tempera/contract/bar';
import type { Session } from '@tempera/contract/team';
import { v7 as uuidv7 } from 'uuid';
import { demoId } from '../apps/server/src/practice/demoBar.ts';
import { decide } from './decide.ts';
import { advicePanel, expect, instruction, openBench, test } from './bar.ts';

/** Counts what a person taps and which keys they press, from now on. */
async function counting(page: Page): Promise<() => Promise<number>> {
  await page.evaluate(() => {
    const counted = window as unknown as { taps: number };
    counted.taps = 0;
    for (const kind of ['pointerdown', 'keydown']) {
      window.addEventListener(kind, () => (counted.taps += 1), true);
    }
  });
  return () =>
    page.evaluate(() => {
      const counted = window as unknown as { taps: number };
      const { taps } = counted;
      counted.taps = 0;
      return taps;
    });
}

const tap = (page: Page, name: string | RegExp): Promise<void> =>
  page.getByRole('button', { name, exact: true }).first().click();

/** Waits until the clock of the shot shows so many seconds; the page itself looks. */
async function untilClock(page: Page, atLeastS: number): Promise<void> {
  const shot = await page.getByRole('region', { name: 'Shot', exact: true }).elementHandle();
  await page.waitForFunction(
    ([panel, s]) => Number(/time([\d.]+)/.exec(panel.textContent)?.[1] ?? 0) >= s,
    [shot, atLeastS] as const,
    { polling: 'raf', timeout: 15_000 },
  );
}

/** Millilitres in the simulated cup, once what hangs under the basket has fallen. */
async function inGlass(page: Page): Promise<string> {
  const says = page.getByText(/^(About .*)?In the simulated cup: /);
  let last = '';
  await expect(async () => {
    const now = /([\d.]+) ml\.$/.exec(await says.innerText())?.[1] ?? '';
    const stands = now !== '' && now === last;
    last = now;
    expect(stands).toBe(true);
  }).toPass({ intervals: [250] });
  return last;
}

/** Always the same one, so that the simulated bar draws the same grinder. */
const FIG = '0d3c1f7e-5a51-4a0e-9d65-1f1c0a9f3b10';

/** A grinder that came today, with the decaf in its hopper: nobody has dialled it in. */
async function newGrinder(page: Page): Promise<void> {
  const sheet = { name: 'Fig', stepped: true, stepMarks: 1, finer: 'down', dialMin: 0, dialMax: 40, seedSetting: 20 };
  const unknown = { secondsPerMark: 3, retentionG: null, rateGps: null, doseSingleS: null, doseDoubleS: null };
  const kept = await page.request.put(`/api/bar/grinders/${FIG}`, {
    data: { basedOn: 0, retired: false, sheet: { ...sheet, ...unknown, burrKg: null, burrsOn: null } },
  });
  expect(kept.status(), await kept.text()).toBe(200);
  const bar = (await (await page.request.get('/api/bar')).json()) as Bar;
  const { person, site } = (await (await page.request.get('/api/session')).json()) as Session;
  const { coffeeId } = bar.grinders.find(({ name }) => name === 'Decaf')!;
  const filled = await page.request.post('/api/facts', {
    data: {
      id: uuidv7(),
      kind: 'newBag',
      at: new Date().toISOString(),
      skewMs: null,
      personId: person.id,
      siteId: site.id,
      grinderId: FIG,
      groupId: null,
      body: { roastedOn: null, coffeeId, otherCoffee: true },
    },
  });
  expect(filled.status(), await filled.text()).toBe(201);
}

test('a house with no scale at all dials in from cold to a lock: fingers first, then level, glass and clock', async ({
  ines: page,
}) => {
  await decide(page, { dosing: 'levelled', yieldBy: 'glass', purgeCount: 'portafilters' });
  await newGrinder(page);
  await page.goto(`/bench/${FIG}/${demoId('group 4')}`);
  await expect(instruction(page)).toHaveText('Dose 18.0 g');
  await page.getByText('By hand').click();

  // Nobody has dialled it in: it feels too coarse, so the collar turns before the first shot.
  await tap(page, 'Something else');
  await tap(page, 'Seen or felt');
  await tap(page, 'fine salt');
  await tap(page, 'Back to the bench');
  await expect(instruction(page)).toHaveText(/^Turn \d+ marks? finer/);
  await expect(advicePanel(page)).toContainText('the grounds feel like fine salt');
  await expect(advicePanel(page)).toContainText(/Purge [\d.]+ portafilters?/);
  await tap(page, 'Do it');
  await expect(instruction(page)).toHaveText('Dose 18.0 g');

  const taken = await counting(page);
  const before: number[] = [];
  const after: number[] = [];
  const MOST = 14;
  let says = '';
  for (let shot = 1; shot <= MOST && !says.startsWith('Lock'); shot += 1) {
    await taken();
    await tap(page, /^Level, about 17\.6 g/);
    await tap(page, /^Pull with 17\.6 g/);
    before.push(await taken());
    await expect(page.getByRole('button', { name: /^Stop/ })).toBeVisible();
    // The glass is at its mark when the clock of this shot says so: the test looks at the clock, as eyes look at the glass.
    await untilClock(page, 26.5);
    await tap(page, /^Stop/);
    const ml = await inGlass(page);
    await taken();
    for (const digit of ml) await tap(page, digit);
    await tap(page, 'Keep this shot');
    await expect(instruction(page)).not.toHaveText('Type what is in the cup');
    after.push(await taken());
    says = await instruction(page).innerText();
    if (says.startsWith('Turn')) await tap(page, 'Do it');
  }
  expect(Math.max(...before)).toBeLessThanOrEqual(2);
  expect(Math.max(...after)).toBeLessThanOrEqual(4);
  expect(says).toMatch(/^Lock it at \d+$/);
  // How sure it can be stands there, and it is kept with the lock.
  await expect(advicePanel(page)).toContainText(/\d\d % likely to hold the window/);
  await tap(page, /^Lock at/);
  await expect(instruction(page)).toHaveText('Locked: it holds its window');
  await page.getByRole('link', { name: 'Journal' }).click();
  await expect(page.getByText(/^Struck level, about 17\.6 g/).first()).toBeVisible();
  await expect(page.getByText('Grounds like fine salt')).toBeVisible();
});

test('single and double share a collar: both teach it, each has its window and its dose', async ({ ines: page }) => {
  await openBench(page, 'House', 'Group 1');
  await page.getByText('By hand').click();
  // Moved since it last held: put back first.
  if ((await instruction(page).innerText()).startsWith('Turn')) await tap(page, 'Do it');
  await page.getByLabel('Recipe', { exact: true }).selectOption({ label: 'House single' });
  await expect(page.getByText('20–25 s')).toBeVisible();
  await expect(page.getByRole('heading', { name: 'Dose 8.8 g' })).toBeVisible();

  // A dose that its basket cannot take is said before the shot.
  await page.getByLabel('On the scale, g').fill('11');
  await expect(page.getByText(/11\.0 g lies outside what this basket is made for, 7\.5 g to 10\.0 g/)).toBeVisible();
  const enter = async (dose: string, yieldG: string, timeS: string): Promise<void> => {
    await tap(page, 'Enter a shot');
    await page.getByLabel('Dose, g').fill(dose);
    await page.getByLabel('Time, s', { exact: true }).fill(timeS);
    await page.getByLabel('Yield, g').fill(yieldG);
    await page.keyboard.press('Enter');
    await expect(instruction(page)).not.toHaveText('Type what is in the cup');
  };
  await enter('8.8', '21', '15');
  await expect(advicePanel(page).getByRole('heading', { level: 2 })).toHaveText(/[567]\.\d s too fast/);
  await expect(instruction(page)).toHaveText(/^Turn \d marks? finer/);

  // The double on the same collar knows it: fast as well, before a shot of its own was pulled.
  await page.getByLabel('Recipe', { exact: true }).selectOption({ label: 'House double' });
  await expect(page.getByText('25–30 s')).toBeVisible();
  await expect(page.getByRole('region', { name: /^Shot 1/ })).toHaveCount(0);
  await enter('18', '36', '20');
  await expect(advicePanel(page).getByRole('heading', { level: 2 })).toHaveText(/too fast/);
  // Its own shots stand on its own list.
  await expect(page.getByRole('region', { name: 'Earlier shots' }).getByRole('listitem')).toHaveCount(1);
});

test('a pull that was left running asks what became of it, through a reload, and traps nobody', async ({
  ines: page,
}) => {
  await openBench(page, 'Decaf', 'Group 4');
  await page.locator('body').press('Space');
  await expect(page.getByRole('button', { name: /^Stop/ })).toBeVisible();
  // Two minutes are twelve seconds on this clock.
  await expect(instruction(page)).toHaveText('What became of this pull?', { timeout: 20_000 });
  await page.reload();
  await expect(instruction(page)).toHaveText('What became of this pull?', { timeout: 20_000 });
  await tap(page, 'It still runs');
  await expect(page.getByRole('button', { name: /^Stop/ })).toBeVisible();
  await tap(page, /^Stop/);
  // What no shot can have weighed is typed; nothing was written by itself.
  await expect(instruction(page)).toHaveText('Type what is in the cup');
  await page.getByLabel('Yield, g').fill('34');
  await page.getByLabel('Time, s', { exact: true }).fill('27');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('region', { name: 'Shot 1' })).toContainText('34.0 g');

  // A pull of one group is not silently another's.
  await page.locator('body').press('Space');
  await expect(page.getByRole('button', { name: /^Stop/ })).toBeVisible();
  await page.getByLabel('Group', { exact: true }).selectOption({ label: 'Group 5' });
  await expect(instruction(page)).toHaveText('A pull is open on another group');
  await expect(page.getByRole('link', { name: 'It is in Group 4: go there' })).toBeVisible();
  await tap(page, 'It is in Group 5');
  await tap(page, 'It was none');
  await expect(page.getByRole('button', { name: /^Pull/ })).toBeVisible();
  await expect(page.getByText('Decaf, Dusk decaf, Group 5')).toBeVisible();
});

test('three ways to stop, with typed numbers, by hand and by keyboard alone', async ({ ines: page }) => {
  await openBench(page, 'Decaf', 'Group 4');
  await page.getByText('By hand').click();
  for (const endsShot of ['yield', 'time', 'volume'] as const) {
    await decide(page, { endsShot });
    await page.reload();
    await expect(page.getByRole('button', { name: /^Pull/ })).toBeVisible();
    const count = await counting(page);
    await page.locator('body').press('Space');
    await expect(page.getByRole('button', { name: 'First drop' })).toBeVisible();
    await page.getByRole('button', { name: 'First drop' }).click();
    if (endsShot === 'volume') {
      await expect(instruction(page)).toHaveText('Type what is in the cup', { timeout: 20_000 });
    } else {
      await page.waitForTimeout(2_400);
      await page.locator('body').press('Space');
    }
    await expect(page.getByLabel('Yield, g')).toBeFocused();
    await count();
    await page.keyboard.type('33.8');
    await page.keyboard.press('Enter');
    await expect(instruction(page)).not.toHaveText('Type what is in the cup');
    expect(await count()).toBeLessThanOrEqual(5);
    await expect(page.getByRole('region', { name: /^Shot \d/ })).toContainText('33.8 g');
  }
});
