import { advicePanel, untilInCup, expect, instruction, openBench, test, weigh } from './bar.ts';

test('a shot by hand, refused numbers kept, a flaw marked and taken back', async ({ ines: page }) => {
  await openBench(page, 'Decaf', 'Group 4');

  // A dose typed with a comma; a refused one keeps what was typed and says what to do.
  const dose = page.getByLabel('On the scale, g');
  await dose.fill('181');
  await page.getByRole('button', { name: 'Keep this dose' }).click();
  await expect(page.getByText('A dose lies between 3 and 30 g. Check the number and its unit.')).toBeVisible();
  await expect(dose).toHaveValue('181');
  await dose.fill('18,1');
  await page.getByRole('button', { name: 'Keep 18.1 g' }).click();
  await expect(instruction(page)).toHaveText('Lock in and pull the shot');

  // The clock alone; yield and first drop are typed.
  await page.getByText('By hand').click();
  await page.getByRole('button', { name: /^Pull with 18\.1 g/ }).click();
  await page.waitForTimeout(1_200);
  await page.getByRole('button', { name: /^Stop/ }).click();
  await page.getByLabel('Yield, g').fill('plenty');
  await page.getByRole('button', { name: 'Keep this shot' }).click();
  await expect(page.getByText('Type the yield as a number')).toBeVisible();
  await expect(page.getByLabel('Yield, g')).toHaveValue('plenty');
  await page.getByLabel('Yield, g').fill('34,5');
  await page.getByRole('textbox', { name: 'Time, s', exact: true }).fill('21');
  await page.getByLabel('First drop, s (if seen)').fill('22');
  await expect(page.getByText('The first drop cannot fall after the shot has ended.')).toBeVisible();
  await page.getByLabel('First drop, s (if seen)').fill('5');
  await page.getByRole('button', { name: 'Keep this shot' }).click();
  await expect(page.getByRole('region', { name: 'Shot 1' })).toContainText('34.5 g');
  await expect(advicePanel(page).getByRole('heading', { level: 2 })).toHaveText(/too fast$/);

  // Marked as a channel it is no evidence; corrected again it is.
  await page.getByRole('button', { name: 'Flawed?' }).click();
  await page.getByText('Channel', { exact: true }).click();
  await page.getByRole('button', { name: 'Correct it' }).click();
  await expect(advicePanel(page).getByRole('heading', { level: 2 })).toHaveText('A channel: no evidence');
  await page.getByRole('button', { name: 'Flawed?' }).click();
  await page.getByText('Sound', { exact: true }).click();
  await page.getByRole('textbox', { name: 'Time, s', exact: true }).fill('20,5');
  await page.getByRole('button', { name: 'Correct it' }).click();
  await expect(page.getByRole('region', { name: 'Shot 1' })).toContainText('20.5 s');

  // Something else was done than advised; the next shot answers for it.
  await page.getByRole('button', { name: 'Something else' }).click();
  const dial = page.getByRole('textbox', { name: 'The dial now stands at' });
  await dial.fill('99');
  await expect(page.getByText('This dial runs from 1 to 40.')).toBeVisible();
  await dial.fill('13');
  await page.getByRole('textbox', { name: 'Purged, g' }).fill('20');
  await page.getByRole('button', { name: 'Write it down' }).click();
  await expect(instruction(page)).toHaveText('Weigh 18.0 g');
  await expect(advicePanel(page)).toContainText('The collar stands at 13');
  await page.getByRole('link', { name: 'Journal' }).click();
  await expect(page.getByRole('row').nth(1)).toContainText('Purged 20.0 g');
  await expect(page.getByRole('row').nth(2)).toContainText(/Collar from \d+ to 13, against advice/);
});

test('by keyboard alone, from the name to the lock and the journal', async ({ page }) => {
  await page.goto('/');
  await page.getByRole('button', { name: /^Ines/ }).focus();
  await page.keyboard.press('Enter');
  await page.keyboard.type('2468');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('region', { name: 'The bar in plan' })).toBeVisible();
  await page.keyboard.press('?');
  await expect(page.getByRole('dialog')).toContainText('start and stop the shot');
  await page.keyboard.press('Escape');
  await expect(page.getByRole('dialog')).toHaveCount(0);

  // A grinder that was never dialled in: tab to it, choose a group, and come back.
  await page.getByRole('link', { name: /Brew/ }).focus();
  await page.keyboard.press('Enter');
  await page.getByRole('link', { name: /Group 5/ }).focus();
  await page.keyboard.press('Enter');
  await expect(instruction(page)).toHaveText('Weigh 21.0 g');
  await page.keyboard.press('b');

  // While an opening is in hand the next thing to do is the opening's; the palette leads to any bench.
  await expect(page.getByRole('region', { name: 'The bar in plan' })).toBeVisible();
  await page.keyboard.press('n');
  await expect(page).toHaveURL(/\/opening$/);
  // The address is there before the page is: whoever goes by the keys looks first.
  await expect(page.getByRole('region', { name: 'The bar in plan' })).toHaveCount(0);
  await page.keyboard.press('b');
  // The house grinder, whose collar was moved.
  await page.getByRole('region', { name: 'The bar in plan' }).getByRole('link', { name: /House/ }).focus();
  await page.keyboard.press('Enter');
  await page.getByRole('link', { name: /Group 1/ }).focus({ timeout: 30_000 });
  await page.keyboard.press('Enter');
  await expect(instruction(page)).toHaveText(/^Turn \d marks? finer/);
  await page.keyboard.press('d');
  for (let shots = 0; shots < 14; shots += 1) {
    await expect(instruction(page)).toHaveText(/^Weigh 1[78]\.\d g/);
    // A key in the very moment in which the bench is drawn may come too soon; whoever sees that presses it again.
    await expect(async () => {
      await page.keyboard.press('g');
      // It fills while the grinder runs; whether somebody saw it run is the machine's speed.
      await expect(page.getByLabel('On the scale, g')).not.toHaveValue('', { timeout: 5_000 });
    }).toPass();
    await expect(page.getByRole('button', { name: /^Grind \d/ })).toBeEnabled();
    // A key in the very moment in which the grinder stops may come too soon; whoever sees that presses it again.
    await expect(async () => {
      await page.keyboard.press('k');
      await expect(instruction(page)).toHaveText('Lock in and pull the shot', { timeout: 2_000 });
    }).toPass();
    await page.keyboard.press('Space');
    // Until the shot runs, the cup still shows the one before.
    await expect(page.getByRole('button', { name: /^Stop/ })).toBeVisible();
    await untilInCup(page, 34);
    await page.keyboard.press('Space');
    await expect(instruction(page)).toHaveText(/^(Turn|Lock|Weigh)/);
    const next = await instruction(page).innerText();
    if (!next.startsWith('Weigh')) await page.keyboard.press('d');
    if (next.startsWith('Lock')) break;
  }
  await expect(instruction(page)).toHaveText('Locked: it holds its window');
  await page.keyboard.press('j');
  await expect(page.getByRole('row').nth(1)).toContainText(/Locked at \d+/);
});

test('wrong PINs are counted and slowed', async ({ page }) => {
  await page.goto('/');
  await page.getByRole('button', { name: /^Pell/ }).click();
  for (let i = 0; i < 5; i += 1) {
    await page.keyboard.type('0000');
    await page.keyboard.press('Enter');
    await expect(page.getByRole('alert')).toContainText(
      i < 4 ? `${4 - i === 1 ? 'One try' : `${4 - i} tries`} left` : 'Wait 30 s',
    );
  }
});

test('a dose that was thrown out is weighed again', async ({ ines: page }) => {
  await openBench(page, 'Guest', 'Group 2');
  const used = page.getByText(/g of coffee used since the opening began/);
  const usedG = async (): Promise<number> => parseFloat(await used.innerText());
  const before = await usedG();
  await weigh(page);
  await page.getByRole('button', { name: 'Throw it out and weigh again' }).click();
  await weigh(page);
  // Both doses were ground, whatever became of them.
  await expect.poll(async () => Math.round(((await usedG()) - before) / 4)).toBe(9);
});
