import { expect, signIn, signOffAtOnce, test } from './bar.ts';

test('once the bar is signed off the home says the day: a shot, a dose, a look and a slip of the finger, without leaving it', async ({
  ines: page,
}) => {
  await signOffAtOnce(page);
  await page.goto('/');
  const day = page.getByRole('region', { name: 'The day' });
  const guest = day.getByRole('listitem', { name: 'Guest' });
  await expect(guest.getByText(/% sure that it is still inside/)).toBeVisible();

  // A customer's own shot: three taps, or its seconds typed.
  await guest.getByRole('button', { name: 'Time a shot' }).click();
  await guest.getByRole('textbox', { name: 'Time, s' }).fill('28.5');
  await page.keyboard.press('Enter');
  await expect(guest.getByRole('button', { name: 'Time a shot' })).toBeVisible();

  // A dose that is short is answered with the grind time that mends it.
  await guest.getByRole('button', { name: 'Weigh a dose' }).click();
  await guest.getByRole('textbox', { name: 'In the basket, g' }).fill('17.1');
  await page.keyboard.press('Enter');
  await guest.getByRole('button', { name: /^It is set to \d+\.\d s$/ }).click();
  await expect(guest.getByText(/, a (shot|dose) in \d+ min/)).toBeVisible();

  // What happened makes it less sure, and can be taken back.
  await guest.getByRole('button', { name: 'More' }).click();
  await guest.getByRole('button', { name: 'Slow and dark' }).click();
  await expect(guest.getByText('Noted: slow and dark. A look says less than a timed shot.')).toBeVisible();
  const bar = day.getByRole('group', { name: 'At the whole bar' });
  await bar.getByRole('button', { name: 'Doors open' }).click();
  await expect(bar.getByText('Noted: doors open.')).toBeVisible();
  await bar.getByRole('button', { name: 'Not so' }).click();
  await expect(bar.getByText('Noted: doors open.')).toBeHidden();

  // Another device, or a reload, says the same; what was told stands in the journal.
  await page.reload();
  await expect(guest.getByText(/% sure that it is still inside/)).toBeVisible();
  await page.getByRole('link', { name: 'Journal' }).click();
  for (const says of ['28.5 s', 'from now on', 'Ran slow and dark, by eye']) {
    await expect(page.getByRole('row').filter({ hasText: says }).first()).toBeVisible();
  }
});

test('how a grinder ran is told in words, drawn, and readable as a table', async ({ ines: page }) => {
  await page.goto('/day');
  await expect(page.getByRole('heading', { level: 1, name: 'How House ran' })).toBeVisible();
  await expect(page.getByText(/\d+ of \d+ timed shots were inside in a week\./)).toBeVisible();
  await page.getByRole('link', { name: 'Guest' }).click();
  await expect(page.getByRole('heading', { level: 1, name: 'How Guest ran' })).toBeVisible();
  await expect(page.getByRole('row').filter({ hasText: 'in service' }).first()).toBeVisible();
  await expect(page.getByText(/\d+ of \d+ doses on the scale were inside/)).toBeVisible();
  // Longer ago it is told by days.
  await page.getByText('Two years').click();
  await expect(page.getByText(/\d+ of \d+ timed shots were inside since \d+ \w+ \d{4}\./)).toBeVisible();
  await expect(page.getByRole('row').filter({ hasText: / ± / })).toHaveCount(30);
  await page.getByRole('button', { name: /^All \d+ lines$/ }).click();
  expect(await page.getByRole('row').filter({ hasText: / ± / }).count()).toBeGreaterThan(35);
});

test('one leaves the bar with a note, and the next one reads it, takes it over, and calls the note done', async ({
  ines: page,
}) => {
  await signOffAtOnce(page);
  await page.goto('/day/handover');
  await expect(page.getByRole('heading', { level: 1, name: 'Hand-over' })).toBeVisible();
  await expect(page.getByRole('region', { name: 'How it stands' })).toContainText(/Guest at \d/);
  await page.getByRole('button', { name: 'A gasket leaks' }).click();
  await page.getByRole('button', { name: 'I leave it so' }).click();
  await expect(page.getByText('You have left it')).toBeVisible();
  // It is one sheet of paper.
  for (const format of ['A4', 'Letter'] as const) {
    const pdf = await page.pdf({ format });
    expect(pdf.toString('latin1').match(/\/Type\s*\/Page[^s]/g)).toHaveLength(1);
  }
  await page.getByRole('button', { name: 'Ines' }).click();
  await page.getByRole('button', { name: 'Hand over to someone else' }).click();
  await signIn(page, 'Tobin');
  await expect(page.getByText(/Ines left the bar/)).toBeVisible();
  await page.getByRole('link', { name: 'Read the hand-over' }).click();
  await page.getByRole('button', { name: 'I take it over' }).click();
  await expect(page.getByText(/Ines left the bar/)).toBeHidden();
  await page.getByRole('button', { name: 'Done: A gasket leaks' }).click();
  await expect(page.getByRole('button', { name: 'Done: A gasket leaks' })).toHaveCount(0);
});
