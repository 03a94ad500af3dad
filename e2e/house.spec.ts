import { expect, openBench, pull, signIn, test, weigh } from './bar.ts';

test('a policy changed in the office is followed at the bench, on another device, without a reload', async ({
  page: office,
  ines: _signedIn,
  browser,
  bar,
}) => {
  const tablet = await (await browser.newContext({ baseURL: bar.base })).newPage();
  await signIn(tablet, 'Tobin');
  await openBench(tablet, 'Guest', 'Group 2');
  await weigh(tablet);
  await pull(tablet, 40);
  await tablet.getByRole('button', { name: /^Why/ }).click();
  const rules = tablet.getByRole('region', { name: 'By other rules of the trade' });
  await expect(rules.getByText('A stated sureness (yours)')).toBeVisible();

  await office.keyboard.press('h');
  await office.getByRole('link', { name: 'How we decide' }).click();
  await expect(office.getByRole('heading', { name: 'How the house decides' })).toBeVisible();
  await office.getByRole('radio', { name: 'The first good shot' }).click();
  await office.getByRole('button', { name: 'Decide so' }).click();
  await expect(office.getByRole('textbox', { name: 'Why' })).toBeFocused();
  await office.getByRole('textbox', { name: 'Why' }).fill('short of beans until Thursday');
  await office.getByRole('button', { name: 'Decide so' }).click();
  await expect(office.getByRole('listitem').first()).toContainText('the first good shot');
  await expect(office.getByRole('listitem').first()).toContainText('Ines: short of beans until Thursday');

  await expect(rules.getByText('The first good shot (yours)')).toBeVisible();
  await tablet.keyboard.press('Escape');
  await tablet.goto('/house/policies');
  await expect(tablet.getByText(/Only a head barista/)).toBeVisible();
  await expect(tablet.getByRole('radio', { name: 'One repeat' })).toBeDisabled();
});

test('another bag is two taps at the bench, and makes its check due on every device', async ({ ines: page }) => {
  await openBench(page, 'Guest', 'Group 2');
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('Locked: it holds its window');
  await page.getByRole('button', { name: 'New bag' }).click();
  await page
    .getByRole('button', { name: /^Lantern Moss.*alike/ })
    .first()
    .click();
  await expect(page.getByText(/Another bag went in today/)).toBeVisible();
  await expect(page.getByRole('heading', { level: 1 })).toHaveText(/^Weigh/);
  await page.getByRole('link', { name: 'Journal' }).click();
  await expect(page.getByRole('row').nth(1)).toContainText('Another bag went in, roasted');
  await page.getByRole('link', { name: 'Bar', exact: true }).click();
  await expect(page.getByRole('link', { name: /Guest/ }).first()).toContainText('new bag');
});
