import type { Page } from '@playwright/test';
import type { GroupSheet } from '@tempera/contract/bar';
import type { Kept } from '@tempera/contract/sheet';
import { beginOpening, expect, instruction, openBench, test, unfoldDone, weigh } from './bar.ts';
import { decide } from './decide.ts';

/** Sets the count of a group's double. */
async function programme(page: Page, name: string, counts: number): Promise<void> {
  const { sheets } = (await (await page.request.get('/api/bar/groups')).json()) as { sheets: Kept<GroupSheet>[] };
  const group = sheets.find(({ sheet }) => sheet.name === name)!;
  const buttons = group.sheet.buttons.map((button) => (button.name === 'Double' ? { ...button, counts } : button));
  const change = { basedOn: group.revision, retired: false, sheet: { ...group.sheet, buttons } };
  const answer = await page.request.put(`/api/bar/groups/${group.id}`, { data: change });
  expect(answer.status(), await answer.text()).toBe(200);
}

/** Opens a step of the opening out of order. */
async function take(page: Page, step: string): Promise<void> {
  await page.getByRole('button', { name: `Do: ${step}` }).click();
  await expect(page.getByRole('heading', { level: 1, name: step })).toBeVisible();
}

const slip = (page: Page, number: number) => page.getByRole('region', { name: `Shot ${number}` });

test('a house that stops by time is told when, and weighs after', async ({ ines: page }) => {
  await decide(page, { endsShot: 'time' });
  await openBench(page, 'Decaf', 'Group 5');
  await weigh(page);
  await page.locator('body').press('Space');
  await expect(instruction(page)).toHaveText(/^Stop at [\d.]+ s, then weigh$/);
  const atS = Number(/Stop at ([\d.]+)/.exec(await instruction(page).innerText())?.[1]);
  // A hand inside the page: on this clock, ten times as fast as life, a busy machine's second is ten.
  await page.waitForFunction(
    () => {
      const stop = [...document.querySelectorAll('button')].find(({ innerText }) => innerText.startsWith('Stop now'));
      stop?.click();
      return stop !== undefined;
    },
    null,
    { polling: 'raf', timeout: 15_000 },
  );
  await expect(slip(page, 1)).toBeVisible();
  await expect(page.getByText('still dripping')).toHaveCount(0);
  // The slip tells the time as it counts, at the recipe's dose and yield; what was stopped is the clock's, in tenths.
  const says = await slip(page, 1).innerText();
  const timeS = Number(/the clock said ([\d.]+)/.exec(says)?.[1] ?? /Time\s*([\d.]+)/.exec(says)?.[1]);
  expect(timeS).toBeGreaterThanOrEqual(atS - 0.1);
  expect(timeS).toBeLessThan(atS + 15);
});

test('a house that stops by volume keeps its hands free, measures its button and programmes it', async ({
  ines: page,
}) => {
  await decide(page, { endsShot: 'volume' });
  await programme(page, 'Group 1', 150);
  await beginOpening(page);
  await openBench(page, 'House', 'Group 1');
  let pulled = 0;
  const pullByMachine = async (): Promise<void> => {
    await weigh(page);
    await page.locator('body').press('Space');
    await expect(instruction(page)).toHaveText('The machine stops it, then weigh');
    pulled += 1;
    // Nobody touches anything: the counter ends it.
    await expect(instruction(page)).not.toHaveText('The machine stops it, then weigh', { timeout: 20_000 });
    await expect(page.getByText('still dripping')).toHaveCount(0);
  };
  const MOST_ROUNDS = 20;
  for (let i = 0; i < MOST_ROUNDS && !(await instruction(page).innerText()).startsWith('Locked'); i += 1) {
    const says = await instruction(page).innerText();
    if (says.startsWith('Weigh')) await pullByMachine();
    else {
      await page.locator('body').press('d');
      await expect(instruction(page)).not.toHaveText(says);
    }
  }
  await expect(instruction(page)).toHaveText(/^Locked/);

  await page.goto('/opening');
  await take(page, 'Measure the button of Group 1');
  const counted = page.getByText(/^Stopped by it this morning: /);
  await expect(counted).toBeVisible();
  while (pulled < 3) {
    await page.getByRole('link', { name: 'Pull House through Group 1' }).click();
    await pullByMachine();
    await page.getByRole('link', { name: 'Back to the opening' }).click();
    await take(page, 'Measure the button of Group 1');
  }
  await expect(counted).toHaveText(/: [\d.]+ g, [\d.]+ g, [\d.]+ g/);
  // A count of 150 gives some six grams too little.
  const programmed = page.getByRole('button', { name: /^It is programmed to \d+$/ });
  const nextCount = Number(/\d+$/.exec(await programmed.innerText())?.[0]);
  expect(nextCount).toBeGreaterThan(165);
  expect(nextCount).toBeLessThan(195);
  await programmed.click();
  await unfoldDone(page);
  await expect(page.getByText(/Measure the button of Group 1\s+done, Ines/)).toBeVisible();
  await page.goto('/bar');
  await page.getByRole('link', { name: 'Group 1', exact: true }).click();
  await expect(page.getByRole('textbox', { name: 'Counts' }).last()).toHaveValue(String(nextCount));
});

test('a dose is thrown away in the opening, and no other is ground only to be weighed', async ({ ines: page }) => {
  await beginOpening(page);
  await take(page, 'Fill House with Canopy blend');
  await page.getByRole('button', { name: 'The same goes on' }).click();
  await take(page, 'Throw the first dose of House away');
  await page.getByRole('button', { name: 'It is thrown away' }).click();
  await unfoldDone(page);
  await expect(page.getByText(/Throw the first dose of House away\s+done, Ines/)).toBeVisible();
  await expect(page.getByText(/Prove the dose time/)).toHaveCount(0);
});

for (const way of ['weighed', 'levelled'] as const) {
  test(`a house whose doses are ${way} doses so at the bench`, async ({ ines: page }) => {
    await decide(page, { dosing: way });
    await openBench(page, 'House', 'Group 1');
    if (way === 'weighed') {
      await page.getByRole('button', { name: /^Grind to 18/ }).click();
      await page.getByRole('button', { name: /^Keep 1\d\.\d g/ }).click();
    } else {
      // One tap says how full it is: the basket's own grams are known.
      await page.getByRole('button', { name: 'Level, about 17.6 g' }).click();
    }
    await expect(instruction(page)).toHaveText('Lock in and pull the shot');
  });
}
