import { expect, signOffAtOnce, test } from './bar.ts';

test('once the bar is signed off the home says the day, and a customer’s shot is timed without leaving it', async ({
  ines: page,
}) => {
  await signOffAtOnce(page);
  await page.goto('/');
  const day = page.getByRole('region', { name: 'The day' });
  const guest = day.getByRole('listitem', { name: 'Guest' });
  await expect(guest.getByText(/% sure that it is still inside/)).toBeVisible();
  const before = Number(
    /next look in (\d+) min/.exec((await guest.getByText(/next look in/).textContent()) ?? '')?.[1],
  );
  await guest.getByRole('button', { name: 'Time a shot' }).click();
  await guest.getByRole('textbox', { name: 'Time, s' }).fill('28.5');
  await page.keyboard.press('Enter');
  // It was looked at: the next look is as long off as after the lock, and the lock stands.
  await expect
    .poll(async () => Number(/in (\d+) min/.exec((await guest.getByText(/next look in/).textContent()) ?? '')?.[1]))
    .toBeGreaterThan(before);
  await page.reload();
  await expect(guest.getByText(/next look in/)).toBeVisible();
  await page.getByRole('link', { name: 'Journal' }).click();
  await expect(page.getByRole('row').nth(1)).toContainText('28.5 s');
});
