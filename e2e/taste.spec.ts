import { demoId } from '../apps/server/src/practice/demoBar.ts';
import { expect, openBench, signOffAtOnce, test } from './bar.ts';

test('what taste decided is in force at the bench, on the wall card, in the afternoon and in the journal, until it is taken back', async ({
  ines: page,
}) => {
  const grinderId = demoId('grinder House');
  await openBench(page, 'House', 'Group 1');
  const wall = await page.context().newPage();
  await wall.goto('/house/wall');
  await expect(wall.getByText('18.0 g in, 36.0 g out').first()).toBeVisible();
  const tongue = await page.context().newPage();
  await tongue.goto(`/taste/${grinderId}`);
  await tongue
    .getByRole('radiogroup', { name: /^Acidity/ })
    .getByText('9', { exact: true })
    .click();
  await tongue.getByRole('group', { name: 'Notes' }).getByText('citrus').click();
  await tongue.getByRole('button', { name: 'Keep Ines’s sheet' }).click();
  await expect(tongue.getByText(/^It is too sour. One change: Stop at 38.2 g instead of 36.0 g/)).toBeVisible();
  await tongue.getByRole('button', { name: 'Stop at 38.2 g instead of 36.0 g' }).click();
  await expect(tongue.getByRole('status')).toHaveText(/^It is changed: 6 % more in the cup/);
  await expect(tongue.getByRole('link', { name: 'Pull one so' })).toBeVisible();

  // The bench and the card follow by themselves, and say what the recipe asks for.
  await expect(page.getByText(/38.2 g out/)).toBeVisible();
  await expect(page.getByText(/Changed for taste today: the recipe asks for 18.0 g in, 36.0 g out/)).toBeVisible();
  await expect(wall.getByText('18.0 g in, 38.2 g out')).toBeVisible();
  await page.reload();
  await expect(page.getByText(/38.2 g out/)).toBeVisible();
  await page.locator('body').press('Space');
  await expect(page.getByRole('heading', { level: 1 })).toHaveText(/the last drops make 38.2 g$/);
  await page.getByRole('button', { name: 'It was none' }).click();
  await page.getByRole('link', { name: 'Journal' }).click();
  await expect(page.getByText('Changed for taste: 6 % more in the cup')).toBeVisible();
  await expect(page.getByText('Tasted: acidity 9, citrus')).toBeVisible();

  // The day is signed for; the afternoon goes over the grinders in use, at the morning's aim.
  await signOffAtOnce(page);
  await page.goto('/opening');
  await page.getByRole('button', { name: 'Begin another run' }).click();
  await page.getByText('One station', { exact: true }).click();
  await page.getByRole('group', { name: 'Grinders' }).getByText('House').click();
  await page.getByRole('button', { name: 'Begin this station' }).click();
  await expect(page.getByRole('heading', { level: 1, name: 'Dial in House on Group 1' })).toBeVisible();
  await expect(page.getByText(/, 0 of 3 done/)).toBeVisible();
  await expect(page.getByText(/18.0 g in, 38.2 g out/)).toBeVisible();

  await tongue.getByRole('button', { name: 'Take it back' }).click();
  await expect(wall.getByText('18.0 g in, 36.0 g out').first()).toBeVisible();

  // Whoever wants another number, or two at once, than the house's table names says so.
  await tongue.getByRole('button', { name: 'Other numbers' }).click();
  const own = tongue.getByRole('dialog', { name: 'Other numbers' });
  await own.getByRole('textbox', { name: /^Stop at/ }).fill('40');
  await own.getByRole('textbox', { name: /^Weigh/ }).fill('17.6');
  await expect(own.getByText(/^Stop at 40.0 g instead of 36.0 g, and weigh 17.6 g instead of 18.0 g/)).toBeVisible();
  await own.getByRole('button', { name: 'Change it so' }).click();
  await expect(wall.getByText('17.6 g in, 40.0 g out').first()).toBeVisible();
});
