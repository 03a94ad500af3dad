import { chromium, request } from '@playwright/test';
import config from '../playwright.config.ts';
import { expect, instruction, openBench, signIn, startBar, test } from './bar.ts';
import type { Page } from '@playwright/test';

const field = (page: Page, name: string | RegExp) => page.getByRole('textbox', { name });

/** Most taps from an empty server to a locked grinder; a field that is typed into counts as one. */
const MOST_TAPS = 90;

/** A shot on a scale of the house that a bridge hears: no demo, no simulated device, a cup that nobody tared. */
async function pullOnABridgedScale(page: Page, baseURL: string): Promise<void> {
  const bench = page.url();
  const made = await page.request.post('/api/team/devices/code', { data: { name: 'Bridge' } });
  const bridge = await request.newContext({ baseURL });
  const { code } = (await made.json()) as { code: string };
  expect((await bridge.post('/api/device', { data: { code } })).status()).toBe(204);
  const CUP_G = 95;
  let showsG = 18.1;
  const hears = setInterval(() => {
    const readings = [{ device: 'counter', value: showsG, unit: 'g' }];
    void bridge.post('/api/readings', { data: { readings } }).catch(() => undefined);
  }, 150);
  await page.goto('/devices');
  await page.getByRole('button', { name: /^Hear .counter/ }).click();
  await expect(page.getByRole('listitem', { name: 'counter' })).toContainText('18.1 g');
  await page.goto(bench);
  await page.getByRole('button', { name: 'On the scale: 18.1 g' }).click();
  await page.getByRole('button', { name: 'Keep 18.1 g' }).click();
  showsG = CUP_G;
  await expect(page.getByText('In the basket: 18.1 g')).toBeVisible();
  await page.getByRole('button', { name: /^Pull/ }).click();
  await expect(page.getByRole('button', { name: /^Stop/ })).toBeVisible();
  // Ten steps of a gram and a half, a fifth of a second each, after a dry second.
  for (let step = -5; step <= 10; step += 1) {
    showsG = CUP_G + 1.5 * Math.max(0, step);
    await page.waitForTimeout(200);
  }
  await page.getByRole('button', { name: /^Stop/ }).click();
  await expect(page.getByRole('heading', { name: /^Shot \d/ })).toBeVisible({ timeout: 15_000 });
  await expect(page.getByText(/^1[45]\.\d g$/).first()).toBeVisible();
  await expect(page.getByText(/The scale jumped/)).toHaveCount(0);
  clearInterval(hears);
  await bridge.dispose();
}

test('a bar is built from an empty site to a locked grinder, with shots typed by hand', async ({ browser }) => {
  const bar = await startBar(10, null);
  const page = await (
    await browser.newContext({ baseURL: bar.base, viewport: { width: 1280, height: 800 } })
  ).newPage();
  let taps = 0;
  const type = async (name: string | RegExp, text: string): Promise<void> => {
    taps += 1;
    await field(page, name).fill(text);
  };
  const tap = async (role: 'button' | 'link' | 'option' | 'combobox', name: string | RegExp): Promise<void> => {
    taps += 1;
    await page.getByRole(role, typeof name === 'string' ? { name, exact: true } : { name }).click();
  };
  const pick = async (label: string, option: string): Promise<void> => {
    await tap('combobox', label);
    await tap('option', option);
  };
  await page.goto('/');
  await type('Name of the café', 'The Potting Shed');
  await type('Your name, as the bar calls you', 'Wren');
  await type('The set-up code', 'open sesame');
  taps += 4;
  await page.getByLabel('A PIN of 4 to 8 digits').fill('44');
  await tap('button', 'Begin');
  await expect(page.getByText('A PIN has 4 to 8 digits.')).toBeVisible();
  await page.getByLabel('A PIN of 4 to 8 digits').fill('4951');
  await page.getByLabel('The PIN once more').fill('4951');
  await tap('button', 'Begin');
  await expect(page.getByText(/^That code does not match/)).toBeVisible();
  await type('The set-up code', 'garden gate');
  await tap('button', 'Begin');
  const list = page.getByRole('region', { name: 'Next thing to do' });
  const begin = async (step: string): Promise<void> => {
    await tap('link', 'Bar');
    taps += 1;
    await list.getByRole('link', { name: step }).click();
  };
  const add = async (step: string, name?: string): Promise<void> => {
    await begin(step);
    if (name) await type('Name', name);
    await tap('button', 'Keep it');
    await expect(page.getByRole('button', { name: 'Keep it', exact: true })).toHaveCount(0);
  };

  await add('Add the counter');
  await add('Add the machine', 'Kettle');
  await add('Add the basket', 'Double');
  await add('Add its group heads', 'Group A');
  // A second one is not refused for its place.
  await add('Add its group heads', 'Group B');
  await add('Add a grinder', 'Spade');
  await begin('Write its recipe');
  await type('Name', 'Shed double');
  await pick('Basket', 'Double');
  await type(/^Ratio/, '2.2');
  await expect(field(page, /^Yield, g$/)).toHaveValue('39.6');
  await type(/^Dose, g$/, '20');
  await expect(page.getByText(/it would touch the screen/)).toBeVisible();
  await type(/^Dose, g$/, '18');
  await expect(page.getByText(/it would touch the screen/)).toHaveCount(0);
  // A first version has nothing to be explained against.
  await tap('button', 'Approve this recipe');
  await expect(page.getByRole('heading', { name: 'Shed double' })).toBeVisible();
  await begin('Add its coffee');
  await type('Name', 'Trowel blend');
  await pick('Recipe', 'Shed double');
  await tap('button', 'Keep it');
  await add('Take a bag in');
  await tap('link', 'Bar');
  await expect(list.getByText('done; another one can be added')).toHaveCount(8);
  taps += 1;
  await list.getByRole('link', { name: 'Put the bag into Spade' }).click();
  await tap('button', 'Put a bag in');
  await tap('button', /^Trowel blend/);
  await expect(page.getByText('Holds Trowel blend, pulled as Shed double.')).toBeVisible();
  await tap('link', 'Bar');
  await expect(page.getByRole('heading', { level: 1 })).toHaveText(/Dial in Spade/);
  taps += 1;
  await page.getByRole('region', { name: 'The bar in plan' }).getByRole('link', { name: /Spade/ }).click();
  await tap('link', /Group A/);
  await expect(instruction(page)).toHaveText('Weigh 18.0 g');

  /** 36 s at the middle of the dial, 2.5 s less a mark coarser: what was read off a scale and the machine's own clock. */
  const START = 20;
  const MOST_ROUNDS = 10;
  for (let round = 0; round < MOST_ROUNDS; round += 1) {
    const says = await instruction(page).innerText();
    if (says.startsWith('Locked')) break;
    if (says.startsWith('Lock') || says.startsWith('Turn')) {
      await tap('button', /^(Do it|Lock at \d+)$/);
    } else {
      const dial = await page.getByRole('img', { name: /^The dial stands at/ }).getAttribute('aria-label');
      const setting = Number(/stands at ([\d.]+)/.exec(dial ?? '')?.[1]);
      const timeS = 36 - 2.5 * (setting - START) + [0.4, -0.5, 0.2][round % 3]!;
      await tap('button', 'Enter a shot');
      await type(/^Time, s/, timeS.toFixed(1));
      await type(/^Yield, g/, '39.6');
      await tap('button', 'Keep this shot');
    }
    await expect(instruction(page))
      .not.toHaveText(says, { timeout: 5_000 })
      .catch(() => undefined);
  }
  await expect(instruction(page)).toHaveText('Locked: it holds its window');
  expect(taps).toBeLessThanOrEqual(MOST_TAPS);
  await pullOnABridgedScale(page, bar.base);
  await page.context().close();
  await bar.remove();
});

test('a recipe gets its next version, with a reason; the slower of two sees both and loses nothing', async ({
  ines: page,
  browser,
  bar,
}) => {
  const other = await (await browser.newContext({ baseURL: bar.base })).newPage();
  await signIn(other, 'Ines');
  for (const office of [page, other]) {
    await office.goto('/house');
    await office.getByRole('link', { name: 'House double' }).click();
    await office.getByRole('link', { name: 'Write the next version' }).click();
  }
  await field(other, /^Yield, g$/).fill('35');
  await field(page, /^Yield, g$/).fill('37');
  await page.getByRole('button', { name: 'Approve this version' }).click();
  await expect(page.getByText('Say in a few words why')).toBeVisible();
  await field(page, 'Why').fill('rounder with the new crop');
  const changes = page.getByRole('region', { name: 'Why' });
  await expect(changes.getByRole('row', { name: /Yield/ })).toContainText('37.0 g');
  await page.getByRole('button', { name: 'Approve this version' }).click();
  await expect(page.getByText('In force')).toBeVisible();
  await expect(page.getByRole('region', { name: 'What changed' })).toContainText('37.0 g');

  // The other one typed on an older version: both are shown, and 35 still stands in the form.
  const alert = other.getByRole('alert').filter({ hasText: 'changed this while you did' });
  await expect(alert).toContainText('37.0 g');
  await expect(field(other, /^Yield, g$/)).toHaveValue('35');
  await alert.getByRole('button', { name: 'Go on with mine' }).click();
  await field(other, 'Why').fill('tried both at noon');
  await other.getByRole('button', { name: 'Approve this version' }).click();
  await expect(other.getByRole('listitem').filter({ hasText: 'Version 4' })).toContainText('tried both at noon');
  await expect(other.getByRole('listitem').filter({ hasText: 'Version 3' })).toContainText('rounder with the new crop');
  await openBench(other, 'House', 'Group 1');
  await expect(other.getByText('35.0 g out')).toBeVisible();
});

test('a piece is moved by pointer and by keyboard, undone, kept, and the home draws it there', async ({
  ines: page,
}) => {
  await page.keyboard.press('p');
  await expect(page.getByRole('heading', { name: 'The plan' })).toBeVisible();
  const scale = page.getByRole('button', { name: /^Scale, / });
  const at = async (): Promise<string> => (await scale.getAttribute('aria-label')) ?? '';
  await expect(scale).toHaveAccessibleName(/328 cm from the left, 36 cm/);
  await scale.focus();
  await page.keyboard.press('ArrowLeft');
  await page.keyboard.press('ArrowDown');
  await expect(scale).toHaveAccessibleName(/326 cm from the left, 38 cm/);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(scale).toHaveAccessibleName(/326 cm from the left, 36 cm/);
  const box = (await scale.boundingBox())!;
  await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2);
  await page.mouse.down();
  await page.mouse.move(box.x + box.width / 2 + 30, box.y + box.height / 2, { steps: 5 });
  await page.mouse.up();
  await expect(scale).not.toHaveAccessibleName(/326 cm/);
  const moved = await at();
  await page.keyboard.press('u');
  await expect(scale).toHaveAccessibleName(/326 cm/);
  await page.keyboard.press('r');
  await expect(scale).toHaveAccessibleName(moved);
  // Picked up with the space bar it moves with the arrows, as the package has it.
  const grinder = page.getByRole('button', { name: /^Brew, / });
  await grinder.focus();
  await page.keyboard.press('Space');
  await expect(page.getByText('Brew picked up.')).toBeAttached();
  await expect(grinder).toHaveAttribute('data-dragging', 'true');
  // The package listens for keys only once the piece is up, a moment after it says so.
  await expect(async () => {
    await page.keyboard.press('ArrowRight');
    await expect(grinder).toHaveAttribute('style', /translate\([1-9]/, { timeout: 500 });
  }).toPass();
  await page.keyboard.press('Space');
  await expect(grinder).toHaveAccessibleName(/26[68] cm from the left/);
  const carried = (await grinder.getAttribute('aria-label')) ?? '';
  await page.getByRole('button', { name: 'Keep the plan' }).click();
  await expect(page.getByRole('region', { name: 'The bar in plan' })).toBeVisible();
  await page.goto('/plan');
  await expect(scale).toHaveAccessibleName(moved);
  await expect(grinder).toHaveAccessibleName(carried);
});

test('a piece is moved by a finger: held for a moment, then drawn along', async ({ browser, bar }) => {
  const context = await browser.newContext({
    baseURL: bar.base,
    hasTouch: true,
    viewport: { width: 1280, height: 800 },
  });
  const page = await context.newPage();
  await signIn(page, 'Ines');
  await page.goto('/plan');
  const milk = page.getByRole('button', { name: /^Milk, / });
  await expect(milk).toHaveAccessibleName(/358 cm from the left/);
  const box = (await milk.boundingBox())!;
  const at = (dx: number) => [{ x: box.x + box.width / 2 + dx, y: box.y + box.height / 2 }];
  const touch = await context.newCDPSession(page);
  await touch.send('Input.dispatchTouchEvent', { type: 'touchStart', touchPoints: at(0) });
  // The finger has to rest, so that a swipe over the plan is no move: the hold is 120 ms.
  await page.waitForTimeout(250);
  for (const dx of [-10, -25, -40]) {
    await touch.send('Input.dispatchTouchEvent', { type: 'touchMove', touchPoints: at(dx) });
  }
  await touch.send('Input.dispatchTouchEvent', { type: 'touchEnd', touchPoints: [] });
  await expect(milk).toHaveAccessibleName(/34[0-9] cm from the left/);
  await context.close();
});

test('a hopper takes another coffee: the bench follows with its recipe, and begins anew', async ({ ines: page }) => {
  await page.getByRole('link', { name: 'Coffee', exact: true }).click();
  const decaf = page.getByRole('region', { name: 'Dusk decaf' });
  await decaf.getByRole('button', { name: 'Put a bag in' }).click();
  await page.getByRole('button', { name: 'Another coffee' }).click();
  await page
    .getByRole('button', { name: /^Lantern Moss/ })
    .first()
    .click();
  await expect(page.getByRole('region', { name: 'Lantern Moss' }).getByText('In Decaf')).toBeVisible();
  await page.getByRole('link', { name: 'Bar', exact: true }).click();
  const plan = page.getByRole('region', { name: 'The bar in plan' });
  await expect(plan.getByRole('link', { name: /Decaf/ })).toContainText('Lantern Moss');
  await expect(plan.getByRole('link', { name: /Decaf/ })).toContainText('new bag');
  await openBench(page, 'Decaf', 'Group 4');
  await expect(page.getByText('17.5 g in, 42.0 g out')).toBeVisible();
});

test('somebody who thinks in ounces reads and types ounces, on every page', async ({ ines: page }) => {
  await page.getByRole('button', { name: /^Signed in as/ }).click();
  await page.getByText('oz', { exact: true }).click();
  // Once it is kept the page is drawn anew, and the menu is closed: whoever leaves before that leaves it as it was.
  await expect(page.getByRole('region', { name: 'Units' })).toBeHidden();
  await page.goto('/house/drinks');
  await expect(page.getByRole('row', { name: /^Double/ })).toContainText('1.270 oz');
  // The wall is the house's, whoever prints it.
  await page.goto('/house/wall');
  await expect(page.getByRole('row', { name: /^Double/ })).toContainText('36.0 g');
  await openBench(page, 'Guest', 'Group 3');
  await expect(page.getByText('0.617 oz in, 1.482 oz out')).toBeVisible();
  await page.getByRole('textbox', { name: 'On the scale, oz' }).fill('0.6');
  await page.getByRole('button', { name: 'Keep 0.600 oz' }).click();
  await page.goto('/journal');
  await expect(page.getByRole('row').nth(1)).toContainText('0.600 oz');
});

test('every sheet prints on one page, A4 and Letter', async ({ bar }) => {
  // Printing to a file wants a browser of its own, without a window.
  const browser = await chromium.launch(config.use?.launchOptions ?? {});
  const page = await (await browser.newContext({ baseURL: bar.base })).newPage();
  await signIn(page, 'Ines');
  await page.goto('/house');
  await page.getByRole('link', { name: 'House double' }).click();
  await expect(page.getByText('Each time the same')).toBeVisible();
  const pagesOf = async (format: string): Promise<number> => {
    const pdf = (await page.pdf({ format })).toString('latin1');
    return pdf.match(/\/Type\s*\/Page\b/g)?.length ?? 0;
  };
  expect([await pagesOf('A4'), await pagesOf('Letter')]).toEqual([1, 1]);
  await page.goto('/house/wall');
  await expect(page.getByRole('row', { name: /^Flat white/ })).toBeVisible();
  expect([await pagesOf('A4'), await pagesOf('Letter')]).toEqual([1, 1]);
  await browser.close();
});
