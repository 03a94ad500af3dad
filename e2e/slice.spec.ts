import { advicePanel, untilInCup, expect, instruction, openBench, pull, signIn, test, weigh } from './bar.ts';

test('one grinder dialled in on one group, with a second browser and a restart on the way', async ({
  ines: page,
  bar,
  browser,
}) => {
  // 1. Home: the plan with every station, and the next thing to do.
  await expect(page.getByRole('region', { name: 'Next thing to do' }).getByRole('heading', { level: 1 })).toBeVisible();
  const plan = page.getByRole('region', { name: 'The bar in plan' });
  for (const name of ['House', 'Guest', 'Decaf', 'Brew'])
    await expect(plan.getByRole('link', { name: new RegExp(name) })).toBeVisible();
  await expect(plan.getByRole('link', { name: /Guest/ })).toContainText(/held (today|yesterday)/);

  // A second browser watches the same bench.
  const other = await browser.newContext({ baseURL: bar.base, viewport: { width: 390, height: 844 } });
  const noor = await other.newPage();
  await signIn(noor, 'Noor');
  await openBench(noor, 'House', 'Group 1');

  // 2-3. The collar was moved at night and is put back; then the dose is weighed and judged at once.
  await openBench(page, 'House', 'Group 1');
  await expect(instruction(page)).toHaveText(/^Turn \d+ marks? finer: \d+ to \d+$/);
  await expect(advicePanel(page)).toContainText('no shot was pulled there');
  await page.getByRole('button', { name: 'Something else' }).click();
  const moved = Number(await page.getByRole('textbox', { name: 'The dial now stands at' }).inputValue());
  await page.keyboard.press('Escape');

  // Ines leaves it there to see for herself: a dose clears what lay in the chute since the night, then the shot comes out fast.
  await weigh(page);
  await page.getByRole('button', { name: 'Throw it out and weigh again' }).click();
  await weigh(page);
  await expect(page.getByRole('img', { name: /^Dose: / }).first()).toBeVisible();

  // 4. Pull.
  await page.locator('body').press('Space');
  await untilInCup(page, 34);
  await page.locator('body').press('Space');

  // 5. The slip, the judgement and the advice.
  const slip = page.getByRole('region', { name: 'Shot 1' });
  await expect(slip).toBeVisible();
  for (const name of ['Time', 'Yield', 'Dose', 'Ratio', 'First drop'])
    await expect(slip.getByRole('img', { name: new RegExp(`^${name}: `) })).toBeVisible();
  await expect(advicePanel(page).getByRole('heading', { level: 2 })).toHaveText(/s too fast$/);
  await expect(instruction(page)).toHaveText(/^Turn \d+ marks? finer/, { timeout: 15_000 });
  await expect(advicePanel(page)).toContainText('with the burrs turning');
  await expect(advicePanel(page)).toContainText(/Purge \d+\.\d g/);
  await expect(advicePanel(page)).toContainText(/Grind time \d+\.\d s/);
  await expect(advicePanel(page).getByRole('img', { name: /^Expected: / })).toBeVisible();
  await expect(advicePanel(page)).toContainText(/\d+ % likely to hold the window/);

  // 8. The second browser sees the shot without being asked to.
  await expect(noor.getByRole('region', { name: 'Shot 1' })).toBeVisible();

  await page.getByRole('button', { name: 'Do it' }).click();
  await expect(page.getByRole('img', { name: /^The dial stands at \d+(; it last held at \d+)?$/ })).toBeVisible();

  // A restart of server and database; what is entered meanwhile waits in the outbox.
  await expect(page.getByRole('button', { name: /unsent/ })).toHaveCount(0);
  await bar.stop();
  await weigh(page);
  await expect(page.getByRole('button', { name: '1 unsent' })).toBeVisible();
  await bar.start();
  await expect(page.getByRole('button', { name: /unsent|Alone since/ })).toHaveCount(0, { timeout: 40_000 });

  // Entries that cannot be sent survive a reload, too.
  await page.route('**/api/facts', (route) => route.abort());
  await page.getByRole('button', { name: 'Throw it out and weigh again' }).click();
  await weigh(page);
  await expect(page.getByRole('button', { name: '1 unsent' })).toBeVisible();
  await page.reload();
  await expect(page.getByRole('button', { name: '1 unsent' })).toBeVisible();
  await expect(instruction(page)).toHaveText('Lock in and pull the shot');
  await page.unroute('**/api/facts');
  await expect(page.getByRole('button', { name: /unsent/ })).toHaveCount(0, { timeout: 40_000 });

  // 6. Repeat until the engine says lock.
  await pull(page, 34);
  for (let shots = 2; shots < 14 && !(await page.getByRole('button', { name: /^Lock at/ }).isVisible()); shots += 1) {
    const act = page.getByRole('button', { name: 'Do it' });
    if (await act.isVisible()) await act.click();
    await weigh(page);
    await pull(page, 34);
  }
  const lock = page.getByRole('button', { name: /^Lock at/ });
  const setting = /\d+/.exec(await lock.innerText())?.[0] ?? '';
  expect(Number(setting)).toBeLessThan(moved);
  await lock.click();
  await expect(page.getByRole('region', { name: 'Locked' })).toContainText(`Locked at ${setting}`);
  await page.getByRole('link', { name: 'Back to the bar' }).click();
  await expect(plan.getByRole('link', { name: /House/ })).toContainText(/held (today|yesterday)/);
  await expect(plan.getByRole('link', { name: /House/ })).toContainText(`dial ${setting}`);

  // 7. The journal has every fact, newest first, filtered and as CSV.
  await page.getByRole('link', { name: 'Journal' }).click();
  const lines = page.getByRole('row');
  await expect(lines.nth(1)).toContainText(`Locked at ${setting}`);
  await expect(lines.nth(1)).toContainText('Ines');
  await page.getByRole('combobox', { name: 'Kind' }).click();
  await page.getByRole('option', { name: 'Collar move' }).click();
  await expect(lines.nth(1)).toContainText(/Collar from \d+ to \d+/);
  await expect(page).toHaveURL(/kind=collarMove/);
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('link', { name: 'Shots as CSV' }).click(),
  ]);
  const csv = await (await import('node:fs/promises')).readFile(await download.path(), 'utf8');
  expect(csv.split('\r\n').filter((line) => line.includes('Ines,House')).length).toBeGreaterThanOrEqual(2);
  await other.close();
});

test.describe('a shot', () => {
  // At ten times life a reload on a full machine takes longer than the shot.
  test.use({ speed: 2 });

  test('goes on where it was through a reload', async ({ ines: page }) => {
    await openBench(page, 'House', 'Group 1');
    await weigh(page);
    await page.getByRole('button', { name: 'Throw it out and weigh again' }).click();
    await weigh(page);
    await page.locator('body').press('Space');
    await untilInCup(page, 3);
    await page.reload();
    await expect(page.getByRole('button', { name: /^Stop/ })).toBeVisible();
    await untilInCup(page, 34);
    await page.locator('body').press('Space');
    const slip = page.getByRole('region', { name: 'Shot 1' });
    for (const name of ['Time', 'Yield', 'First drop'])
      await expect(slip.getByRole('img', { name: new RegExp(`^${name}: `) })).toBeVisible();
  });
});
