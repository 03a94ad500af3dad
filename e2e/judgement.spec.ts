import type { Page } from '@playwright/test';
import type { Bar } from '@tempera/contract/bar';
import type { RecordedFact } from '@tempera/contract/journal';
import type { Session } from '@tempera/contract/team';
import { v7 as uuidv7 } from 'uuid';
import { advicePanel, expect, instruction, openBench, test, weigh } from './bar.ts';

/** What the bench says of shots that a head barista has an opinion on; the shots arrive as another tablet would send them. */

interface Poured {
  timeS: number;
  yieldG?: number;
}

/** Where the collar stood after a fact that says so. */
function settingIn(fact: RecordedFact | undefined): number | undefined {
  if (fact?.kind === 'collarMove') return fact.body.to;
  return fact?.kind === 'shot' || fact?.kind === 'lock' ? fact.body.setting : undefined;
}

/** A shot of the open bench, written down elsewhere: at the dial's setting, with the recipe's dose, unless said otherwise. */
async function poured(page: Page, { timeS, yieldG }: Poured): Promise<void> {
  const [grinderId, groupId] = new URL(page.url()).pathname.split('/').slice(-2);
  const bar = (await (await page.request.get('/api/bar')).json()) as Bar;
  const { person, site } = (await (await page.request.get('/api/session')).json()) as Session;
  const grinder = bar.grinders.find(({ id }) => id === grinderId)!;
  const own = bar.facts.filter((fact) => fact.grinderId === grinderId && settingIn(fact) !== undefined);
  const setting = settingIn(own.toSorted((a, b) => a.at.localeCompare(b.at)).at(-1)) ?? grinder.seedSetting;
  const before = await page.locator('main').innerText();
  const answer = await page.request.post('/api/facts', {
    data: {
      id: uuidv7(),
      kind: 'shot',
      at: new Date().toISOString(),
      skewMs: null,
      personId: person.id,
      siteId: site.id,
      grinderId,
      groupId,
      body: {
        recipeVersionId: grinder.recipe.id,
        setting,
        doseG: grinder.recipe.doseG,
        yieldG: yieldG ?? grinder.recipe.yieldG,
        timeS,
        firstDropS: 6,
        flaw: null,
        measuredBy: 'hand',
        trace: null,
      },
    },
  });
  expect(answer.status(), await answer.text()).toBe(201);
  await expect.poll(() => page.locator('main').innerText(), { timeout: 10_000 }).not.toBe(before);
}

const title = (page: Page) => advicePanel(page).getByRole('heading', { level: 2 });
const lockButton = (page: Page) => page.getByRole('button', { name: /^Lock at/ });

test.setTimeout(90_000);

test('a choke that nobody flagged is a choke: coarser, and no number of seconds', async ({ ines: page }) => {
  await openBench(page, 'Decaf', 'Group 4');
  await poured(page, { timeS: 48, yieldG: 4 });
  await expect(title(page)).toHaveText('Choked');
  await expect(instruction(page)).toHaveText(/^Turn \d+ marks? coarser/);
  await expect(page.locator('main')).toContainText('Not to be served');
  await expect(page.locator('main')).not.toContainText(/\d{2,}\.\d s too slow/);
  await expect(lockButton(page)).toHaveCount(0);
});

test('shots that creep out after a lock are not locked again: the third turns the collar', async ({ ines: page }) => {
  await openBench(page, 'Decaf', 'Group 4');
  const middle = 27;
  for (let i = 0; i < 5 && !(await lockButton(page).isVisible()); i += 1) await poured(page, { timeS: middle });
  await lockButton(page).click();
  await expect(page.getByRole('region', { name: 'Locked' })).toBeVisible();
  await page.reload();
  await expect(page.getByRole('region', { name: 'Locked' })).toBeVisible();
  for (const timeS of [31.2, 31.6, 31.9]) {
    await poured(page, { timeS });
    await expect(lockButton(page)).toHaveCount(0);
  }
  await expect(instruction(page)).toHaveText(/^Turn \d+ marks? coarser/);
});

test('a person may pull again against a turn, and lock as close enough with its chance', async ({ ines: page }) => {
  await openBench(page, 'Decaf', 'Group 4');
  await poured(page, { timeS: 21 });
  await poured(page, { timeS: 21.4 });
  await expect(instruction(page)).toHaveText(/^Turn \d+ marks? finer/);
  await page.getByRole('button', { name: 'Something else' }).click();
  await page.getByRole('button', { name: /^Pull again at/ }).click();
  await expect(instruction(page)).toHaveText(/^Weigh/);
  await weigh(page);
  await poured(page, { timeS: 21.8 });
  await page.getByRole('button', { name: 'Something else' }).click();
  const closeEnough = page.getByRole('button', { name: /^Close enough: lock at/ });
  const chance = /\((.*)\)/.exec(await closeEnough.innerText())?.[1] ?? '';
  await closeEnough.click();
  await expect(page.getByRole('region', { name: 'Locked' })).toBeVisible();
  await page.getByRole('link', { name: 'Journal' }).click();
  await expect(page.getByRole('row').nth(1)).toContainText(/Locked at/);
  await expect(page.getByRole('row').nth(1)).toContainText(chance);
});
