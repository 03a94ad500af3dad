import { demoId } from '../apps/server/src/practice/demoBar.ts';
import { expectAccessible } from './accessible.ts';
import { expect, openBench, pull, test, weigh } from './bar.ts';

/** The office side, each page once. */
const officePages = [
  '/plan',
  '/day',
  '/day/mornings',
  '/day/handover',
  '/journal/changes',
  '/bar',
  `/bar/grinder/${demoId('grinder House')}`,
  `/bar/group/${demoId('group 3')}`,
  `/bar/machine/${demoId('machine Fern')}`,
  '/coffee',
  '/coffee/bags',
  '/coffee/bags/new',
  '/coffee/use',
  `/coffee/coffees/${demoId('coffee Canopy blend')}`,
  '/house',
  `/house/recipes/${demoId('recipe House double')}`,
  `/house/recipes/${demoId('recipe House double')}/edit`,
  '/house/drinks',
  `/house/drinks/${demoId('drink Flat white')}`,
  '/house/wall',
  '/house/cafe',
  '/bar/upkeep',
];

test('every view passes the accessibility checker, by day and by night', async ({ page, ines, bar }) => {
  await expectAccessible(ines);
  await page.goto('/journal');
  await expect(page.getByRole('row').nth(1)).toBeVisible();
  await expectAccessible(page);
  await page.goto('/house/policies');
  await page.getByRole('radio', { name: 'One repeat' }).click();
  await expectAccessible(page);
  for (const path of officePages) {
    await page.goto(path);
    await page.getByRole('heading', { level: 1 }).waitFor();
    await expect(page.locator('[aria-busy=true]')).toHaveCount(0);
    await expectAccessible(page);
  }
  await page.keyboard.press('/');
  await page.getByRole('textbox', { name: 'Find' }).fill('gue');
  await expect(page.getByRole('button', { name: /Guest double/ })).toBeVisible();
  await expectAccessible(page, '[role=dialog]');
  await page.keyboard.press('Escape');
  await page.goto('/nowhere');
  await expectAccessible(page);
  await page.goto('/');
  await page.getByRole('region', { name: 'The bar in plan' }).getByRole('link', { name: /House/ }).click();
  await expect(page.getByRole('heading', { name: /which group/ })).toBeVisible();
  await expectAccessible(page);
  await openBench(page, 'House', 'Group 3');
  await expectAccessible(page);
  await weigh(page);
  await expectAccessible(page);
  await pull(page, 34);
  await expectAccessible(page);
  await page.keyboard.press('w');
  const why = page.getByRole('dialog');
  await expect(why.getByRole('heading', { name: 'What each choice would do' })).toBeVisible();
  // Every choice is played out in the worker: what was still being worked out becomes shots and grams.
  await expect(why.getByRole('row', { name: /advised/ })).toContainText(/[\d.]+ shots, \d+ g|now/);
  await expect(why.getByText('…', { exact: true })).toHaveCount(0);
  await expectAccessible(page, '[role=dialog]');
  await page.keyboard.press('Escape');
  await expect(why).toBeHidden();
  await page.getByRole('button', { name: 'Something else' }).click();
  await expect(page.getByRole('dialog')).toBeVisible();
  await expectAccessible(page, '[role=dialog]');
  await page.getByRole('button', { name: 'Seen or felt' }).click();
  await expect(page.getByRole('heading', { name: 'The grounds feel like' })).toBeVisible();
  await expectAccessible(page, '[role=dialog]');
  await page.getByRole('button', { name: 'Back to the bench' }).click();
  await page.getByRole('button', { name: 'Enter a shot' }).click();
  await expect(page.getByRole('textbox', { name: 'Yield, g' })).toBeFocused();
  await expectAccessible(page);
  await page.getByRole('button', { name: 'It was none' }).click();
  await page.getByRole('button', { name: 'Flawed?' }).click();
  await expect(page.getByRole('dialog')).toBeVisible();
  // Behind an open dialog the page is out of reach, so only the dialog is judged.
  await expectAccessible(page, '[role=dialog]');
  await page.keyboard.press('Escape');

  const stranger = await page.context().browser()!.newContext({ baseURL: bar.base });
  const tablet = await stranger.newPage();
  await tablet.goto('/');
  await tablet.getByRole('button', { name: /^Noor/ }).waitFor();
  await expectAccessible(tablet);
  await tablet.getByRole('button', { name: /^Noor/ }).click();
  await expectAccessible(tablet);
  await stranger.close();
});

const sizes = [
  { width: 360, height: 640 },
  { width: 390, height: 844 },
  { width: 640, height: 400 },
  { width: 1280, height: 800 },
];

test('nothing is wider than the screen, on a phone and at twice the size', async ({ ines: page }) => {
  const expectFits = async (what: string): Promise<void> => {
    for (const size of sizes) {
      await page.setViewportSize(size);
      await expect
        .poll(() => page.evaluate(() => document.documentElement.scrollWidth - window.innerWidth), {
          message: `${what} at ${size.width}`,
          timeout: 3_000,
        })
        .toBeLessThanOrEqual(0);
    }
  };
  for (const path of ['/', '/journal', '/house/policies', ...officePages]) {
    await page.goto(path);
    await page.getByRole('heading', { level: 1 }).waitFor();
    await expect(page.locator('[aria-busy=true]')).toHaveCount(0);
    await expectFits(path);
  }
  await openBench(page, 'House', 'Group 3');
  await expectFits('bench');
  await page.getByRole('button', { name: 'Enter a shot' }).click();
  await expectFits('numbers by hand');
  // On the smallest phone the number, the keypad and Keep are seen together.
  await page.setViewportSize({ width: 360, height: 640 });
  await page.getByRole('textbox', { name: 'Yield, g' }).scrollIntoViewIfNeeded();
  await page.getByRole('button', { name: 'Keep this shot' }).scrollIntoViewIfNeeded();
  await expect(page.getByRole('textbox', { name: 'Yield, g' })).toBeInViewport();
});

test('a failed read says so and can be tried again', async ({ ines: page }) => {
  await page.route(/\/api\/journal(\?|$)/, (route) => route.abort());
  await page.goto('/journal');
  await expect(page.getByRole('alert')).toContainText('The server cannot be reached', { timeout: 15_000 });
  await page.unroute(/\/api\/journal(\?|$)/);
  await page.getByRole('button', { name: 'Try again' }).click();
  await expect(page.getByRole('row').nth(1)).toBeVisible();
  await page.goto('/journal?kind=correction&person=06fca4cd-57a7-53f9-8085-5422d18caf6b');
  await expect(page.getByText('Nothing is written down that matches.')).toBeVisible();
});
