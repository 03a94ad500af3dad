import { expect, signIn, test, unfoldDone, weigh } from './bar.ts';

test('what is left out has a reason, stands on the page to sign, and can be taken back', async ({
  bar,
  browser,
  ines,
}) => {
  await ines.goto('/opening');
  await ines.getByRole('button', { name: 'Do: Milk station' }).click();
  await expect(ines.getByRole('heading', { level: 1, name: 'Milk station' })).toBeVisible();
  await ines.getByRole('button', { name: 'Leave it out' }).click();
  await ines.getByRole('button', { name: 'Broken, service is called' }).click();
  await ines.goto('/opening/sign-off');
  await expect(ines.getByText('Left out: Milk station. Broken, service is called')).toBeVisible();
  // Another device sees it, and takes it back.
  const context = await browser.newContext({ baseURL: bar.base });
  const noor = await context.newPage();
  await signIn(noor, 'Noor');
  await noor.goto('/opening');
  await unfoldDone(noor);
  await noor.getByRole('button', { name: 'Take back: Milk station' }).click();
  await expect(ines.getByText(/Not done: .*Milk station/)).toBeVisible();
  await noor.goto('/opening/sign-off');
  await expect(noor.getByRole('button', { name: 'Sign it off as it stands' })).toBeDisabled();
  await context.close();
});

test('a scale that goes silent in mid-shot leaves what it saw, and the rest is typed', async ({ ines: page }) => {
  await page.evaluate(() => localStorage.setItem('tempera.mishap', '"lost"'));
  await page.goto('/');
  await page.getByRole('region', { name: 'The bar in plan' }).getByRole('link', { name: /Decaf/ }).click();
  await page.getByRole('link', { name: /Group 4/ }).click();
  await weigh(page);
  await page.locator('body').press('Space');
  await expect(page.getByText(/The scale is gone/)).toBeVisible();
  await page.locator('body').press('Space');
  await page.getByRole('textbox', { name: /^Yield, g/ }).fill('36.2');
  await page.getByRole('button', { name: 'Keep this shot' }).click();
  await expect(page.getByRole('region', { name: 'Shot 1' })).toContainText('trace in part');
  await expect(page.getByRole('region', { name: 'Shot 1' })).toContainText('36.2 g');
});

test('a recorded shot is read from its file, and a broken file says what is wrong', async ({ ines: page }) => {
  await page.goto('/');
  await page.getByRole('region', { name: 'The bar in plan' }).getByRole('link', { name: /Decaf/ }).click();
  await page.getByRole('link', { name: /Group 4/ }).click();
  await weigh(page);
  await page.getByText('Recording', { exact: true }).click();
  const choose = page.locator('input[type="file"]');
  const csv = (lines: string[]) => ({ name: 'shot.csv', mimeType: 'text/csv', buffer: Buffer.from(lines.join('\n')) });
  await choose.setInputFiles(csv(['time_s,mass_g', '0,0', '1,0', '0.5,0', '2,0', '3,0']));
  await expect(page.getByText(/Its time runs back/)).toBeVisible();
  const massAt = (s: number): number => (s < 6 ? 0 : Math.min(36, 1.6 * (s - 6)));
  const lines = Array.from({ length: 330 }, (_, i) => `${(i / 10).toFixed(1)},${massAt(i / 10).toFixed(1)}`);
  await choose.setInputFiles(csv(['time_s,mass_g', ...lines]));
  await expect(page.getByRole('region', { name: 'Shot 1' })).toContainText('36.0 g');
});
