import { expect, test } from './bar.ts';

test('a recipe is looked for by tasting, two cups at a time and blind, from the roaster’s start to a draft with its evidence', async ({
  ines: page,
}) => {
  await page.goto('/coffee');
  await page.getByRole('heading', { level: 2 }).first().getByRole('link').click();
  await page.getByRole('link', { name: 'Find a recipe for it by tasting' }).click();
  await page.getByRole('textbox', { name: 'Time, s' }).fill('twenty');
  await expect(page.getByRole('button', { name: 'Begin the trial' })).toBeDisabled();
  await page.getByRole('textbox', { name: 'Time, s' }).fill('27');
  await page.getByRole('button', { name: 'Begin the trial' }).click();

  for (let pair = 1; pair <= 4; pair += 1) {
    await expect(page.getByRole('heading', { name: 'Pull these two' })).toBeVisible();
    await expect(page.getByText(/The collar at about \d/).first()).toBeVisible();
    const left = page.getByRole('textbox', { name: 'Left: yield, g' });
    const right = page.getByRole('textbox', { name: 'Right: yield, g' });
    const [leftG, rightG] = [Number(await left.inputValue()), Number(await right.inputValue())];
    await page.getByRole('button', { name: 'Both are poured' }).click();
    // Blind: no number of either cup is on the sheet.
    const sheet = page.getByRole('region', { name: 'Taste', exact: true });
    await expect(sheet.getByText(/g out/)).toHaveCount(0);
    // This palate likes more in the cup, and calls the short ones sour and strong.
    const better = leftG === rightG ? 'The same' : leftG > rightG ? 'Left, clearly' : 'Right, clearly';
    await sheet.getByText(better, { exact: true }).click();
    const word = sheet.getByRole('radiogroup', { name: `${leftG > rightG ? 'Right' : 'Left'}: weak to strong` });
    await word.getByText('too strong', { exact: true }).click();
    await sheet.getByRole('button', { name: 'Keep it' }).click();
    await expect(page.getByRole('heading', { name: `What ${2 * pair} cups say` })).toBeVisible();
    if (await page.getByRole('link', { name: 'Draft the recipe', exact: true }).isVisible()) break;
  }
  // A slip is taken back, and the trial goes on from there, on a reload too.
  await page.getByRole('button', { name: 'Take it back' }).last().click();
  await page.reload();
  await expect(page.getByRole('heading', { name: 'Pull these two' })).toBeVisible();
  await page.getByRole('link', { name: 'Stop here and draft the recipe' }).click();
  await expect(page.getByRole('heading', { level: 1, name: /^The next version of/ })).toBeVisible();
  await expect(page.getByRole('textbox', { name: 'Why' })).toHaveValue(/^Found by tasting \d cups/);
  const yieldG = Number(await page.getByRole('textbox', { name: 'Yield, g', exact: true }).inputValue());
  expect(yieldG).toBeGreaterThan(36);
  await expect(page.getByRole('region', { name: 'Why' }).getByRole('row', { name: /Yield/ })).toBeVisible();
});
