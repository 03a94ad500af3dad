import { chromium } from '@playwright/test';
import config from '../playwright.config.ts';
import { expect, openBench, signIn, startBar, test } from './bar.ts';
import type { Page } from '@playwright/test';

const field = (page: Page, name: string | RegExp) => page.getByRole('textbox', { name });

async function choose(page: Page, label: string, option: string | RegExp): Promise<void> {
  await page.getByRole('combobox', { name: label }).click();
  await page.getByRole('option', { name: option }).click();
}

test('a bar is built from an empty site, until its first shot can be pulled', async ({ browser }) => {
  const bar = await startBar(10, false);
  const page = await (
    await browser.newContext({ baseURL: bar.base, viewport: { width: 1280, height: 800 } })
  ).newPage();
  await page.goto('/');
  await field(page, 'Name of the café').fill('The Potting Shed');
  await field(page, 'Your name, as the bar calls you').fill('Wren');
  await page.getByLabel('A PIN of 4 to 8 digits').fill('44');
  await page.getByRole('button', { name: 'Begin' }).click();
  await expect(page.getByText('A PIN has 4 to 8 digits.')).toBeVisible();
  await page.getByLabel('A PIN of 4 to 8 digits').fill('4455');
  await page.getByRole('button', { name: 'Begin' }).click();
  const list = page.getByRole('region', { name: 'Next thing to do' });
  const begin = async (step: string): Promise<void> => {
    await page.getByRole('link', { name: 'Bar', exact: true }).click();
    await list.getByRole('link', { name: step }).click();
  };
  const keep = () => page.getByRole('button', { name: 'Keep it', exact: true }).click();

  await begin('Add the counter');
  await keep();
  await begin('Add the machine');
  await keep();
  await expect(page.getByText('Give it a name, as people at the bar call it.')).toBeVisible();
  await field(page, 'Name').fill('Kettle');
  await keep();
  await begin('Add its group heads');
  await field(page, 'Name').fill('Group A');
  await keep();
  await begin('Add the basket');
  await field(page, 'Name').fill('Double');
  await keep();
  await begin('Add a grinder');
  await field(page, 'Name').fill('Spade');
  await keep();
  await begin('Write its recipe');
  await field(page, 'Name').fill('Shed double');
  await choose(page, 'Basket', 'Double');
  await field(page, /^Ratio/).fill('2.2');
  await expect(field(page, /^Yield, g$/)).toHaveValue('39.6');
  await field(page, /^Dose, g$/).fill('20');
  await expect(page.getByText(/it would touch the screen/)).toBeVisible();
  await field(page, /^Dose, g$/).fill('18');
  await expect(page.getByText(/it would touch the screen/)).toHaveCount(0);
  await page.getByRole('button', { name: 'Add a step' }).click();
  await field(page, 'step 1').fill('Dry the basket');
  await field(page, 'Why').fill('the first one');
  await page.getByRole('button', { name: 'Approve this recipe' }).click();
  await expect(page.getByRole('heading', { name: 'Shed double' })).toBeVisible();
  await begin('Add its coffee');
  await field(page, 'Name').fill('Trowel blend');
  await choose(page, 'Recipe', 'Shed double');
  await keep();
  await begin('Take a bag in');
  await keep();
  await page.getByRole('link', { name: 'Bar', exact: true }).click();
  const plan = page.getByRole('region', { name: 'The bar in plan' });
  await plan.getByRole('link', { name: /Spade.*put a bag in/ }).click();
  await page.getByRole('button', { name: 'Put a bag in' }).click();
  await page.getByRole('button', { name: /^Trowel blend/ }).click();
  await expect(page.getByText('Holds Trowel blend, pulled as Shed double.')).toBeVisible();
  await page.getByRole('link', { name: 'Bar', exact: true }).click();
  await expect(page.getByRole('heading', { level: 1 })).toHaveText(/Dial in Spade/);
  await plan.getByRole('link', { name: /Spade/ }).click();
  await page.getByRole('link', { name: /Group A/ }).click();
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('Weigh 18.0 g');
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
  await expect(page.getByRole('heading', { level: 1 })).toBeVisible();
  await page.goto('/house/drinks');
  await expect(page.getByRole('row', { name: /^Double/ })).toContainText('1.270 oz');
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
