import type { Page } from '@playwright/test';
import { expectAccessible } from './accessible.ts';
import { expect, openBench, signIn, test } from './bar.ts';

/** Chooses a name and types digits on the pad. */
async function typePin(page: Page, name: string, pin: string): Promise<void> {
  await page.getByRole('button', { name: new RegExp(`^${name}`) }).click();
  for (const digit of pin) await page.getByRole('button', { name: digit, exact: true }).click();
  await page.getByRole('button', { name: 'Sign in' }).click();
}

test('somebody is taken in, comes in by a code, locks with a second person’s yes, and leaves again', async ({
  ines: page,
  bar,
}) => {
  await page.getByRole('button', { name: 'Signed in as Ines' }).click();
  await page.getByRole('link', { name: 'Team' }).click();
  await page.getByRole('link', { name: 'Take somebody in' }).click();
  await page.getByLabel('Name, as the bar calls them').fill('Maren');
  await page.getByRole('button', { name: 'Keep it' }).click();
  const card = page.getByRole('listitem', { name: 'Maren' });
  await expect(card.getByText('Cannot get in yet: hand out a code.')).toBeVisible();
  await card.getByRole('button', { name: 'Hand out a code' }).click();
  const code = (await card.getByText(/^\d{4} \d{4}$/).textContent()) ?? '';

  // At another device: the code, and a PIN of her own, which must not be everybody's.
  const tablet = await (await page.context().browser()!.newContext({ baseURL: bar.base })).newPage();
  await tablet.goto('/');
  await tablet.getByRole('button', { name: /^Maren/ }).click();
  await tablet.getByLabel('The code').fill(code);
  await tablet.getByLabel('Your PIN', { exact: true }).fill('1234');
  await tablet.getByLabel('Your PIN once more').fill('1234');
  await tablet.getByRole('button', { name: 'Sign in' }).click();
  await expect(tablet.getByText(/Too many people would try that PIN first/)).toBeVisible();
  await tablet.getByLabel('Your PIN', { exact: true }).fill('4951');
  await tablet.getByLabel('Your PIN once more').fill('4951');
  await tablet.getByRole('button', { name: 'Sign in' }).click();
  await expect(tablet.getByRole('region', { name: 'The bar in plan' })).toBeVisible();

  // A trainee pulls a shot and writes it; the lock wants somebody else's yes.
  await openBench(tablet, 'Decaf', 'Group 4');
  await tablet.getByRole('button', { name: 'Enter a shot' }).click();
  await tablet.getByRole('textbox', { name: /^Time, s/ }).fill('27');
  await tablet.getByRole('textbox', { name: /^Yield, g/ }).fill('36');
  await tablet.getByRole('button', { name: 'Keep this shot' }).click();
  await tablet.getByRole('button', { name: 'Something else' }).click();
  await tablet.getByRole('button', { name: /^Close enough: lock at/ }).click();
  const asks = tablet.getByRole('dialog', { name: 'This needs a second person’s yes' });
  await expect(asks.getByText(/Only a head barista or a barista does this/)).toBeVisible();
  await asks.getByLabel('Their PIN').fill('9999');
  await asks.getByRole('button', { name: 'Yes' }).click();
  await expect(asks.getByText(/That PIN does not match/)).toBeVisible();
  const pin = /PIN is (\d+)/.exec((await asks.getByText(/Demo café: the PIN is/).textContent()) ?? '')?.[1] ?? '';
  await asks.getByLabel('Their PIN').fill(pin);
  await asks.getByRole('button', { name: 'Yes' }).click();
  await expect(asks).toBeHidden();
  await expect(tablet.getByRole('button', { name: 'Signed in as Maren' })).toBeVisible();
  await page.goto('/journal');
  await expect(page.getByRole('row', { name: /Maren.*Locked at .*’s yes/ })).toBeVisible();

  // She leaves: at once, everywhere; what she did keeps her name.
  await page.goto('/team');
  await page.getByRole('link', { name: 'Maren' }).click();
  await page.getByRole('button', { name: 'Take out of use' }).click();
  await expect(page.getByRole('heading', { name: 'Left the house' })).toBeVisible();
  await tablet.reload();
  await expect(tablet.getByRole('heading', { name: 'Who is at the bar?' })).toBeVisible();
  await expect(tablet.getByRole('button', { name: /^Maren/ })).toHaveCount(0);
  await page.goto('/journal');
  await expect(page.getByRole('row', { name: /Maren.*Locked at/ })).toBeVisible();
});

test('one changes one’s own PIN, and is signed out elsewhere', async ({ page, bar }) => {
  await signIn(page, 'Tobin');
  const other = await (await page.context().browser()!.newContext({ baseURL: bar.base })).newPage();
  await signIn(other, 'Tobin');
  await page.goto('/me');
  await expect(page.getByText(/^Elsewhere, since/)).toBeVisible();
  await page.getByLabel('The PIN you have').fill('1357');
  await page.getByLabel('A new one, 4 to 8 digits').fill('8315');
  await page.getByLabel('The new one once more').fill('8316');
  await page.getByRole('button', { name: 'Change the PIN' }).click();
  await expect(page.getByText('The two differ. Type both again.')).toBeVisible();
  await page.getByLabel('The new one once more').fill('8315');
  await page.getByRole('button', { name: 'Change the PIN' }).click();
  await expect(page.getByText(/^Your PIN is changed/)).toBeVisible();
  await other.reload();
  await typePin(other, 'Tobin', '1357');
  await expect(other.getByText(/That PIN does not match/)).toBeVisible();
  for (const digit of '8315') await other.getByRole('button', { name: digit, exact: true }).click();
  await other.getByRole('button', { name: 'Sign in' }).click();
  await expect(other.getByRole('region', { name: 'The bar in plan' })).toBeVisible();
});

test('from the first enrolled device on, a stranger sees no names: it enrols by a code, or the head comes in by a password', async ({
  ines: page,
  bar,
  browser,
}) => {
  await page.goto('/me');
  const password = page.getByRole('form', { name: 'A password, for elsewhere' });
  await password.getByLabel('Your PIN, once more').fill('2468');
  await password.getByLabel('A password of twelve letters or more').fill('a fern behind glass');
  await password.getByRole('button', { name: 'Set the password' }).click();
  await expect(page.getByText('Your password is set.')).toBeVisible();
  await page.goto('/team');
  await page.getByLabel('This device').fill('Bar left');
  await page.getByRole('button', { name: 'Enrol this one' }).click();
  await expect(page.getByRole('listitem', { name: 'Bar left' })).toContainText('(this one)');
  await page.getByLabel('Another device').fill('Phone');
  await page.getByRole('button', { name: 'A code for it' }).click();
  const code = /\d{4} \d{4}/.exec(await page.getByRole('status').filter({ hasText: 'quarter of an hour' }).innerText());

  const elsewhere = await browser.newContext({ baseURL: bar.base });
  const phone = await elsewhere.newPage();
  // As the camera would open it: the code is typed already.
  await expect(page.getByRole('img', { name: 'The same code, for a camera' })).toBeVisible();
  await phone.goto(`/#device=${code?.[0].replace(' ', '') ?? ''}`);
  await expect(phone.getByText('This device is not one of the house yet')).toBeVisible();
  await expect(phone.getByText('Tobin')).toBeHidden();
  await phone.getByLabel('Name').fill('Ines');
  await phone.getByLabel('Password', { exact: true }).fill('not it, not at all');
  await phone.getByRole('button', { name: 'Sign in' }).click();
  await expect(phone.getByText('Name or password is not right.')).toBeVisible();
  await phone.getByRole('button', { name: 'Enrol this device' }).click();
  await signIn(phone, 'Tobin');

  await page.reload();
  const row = page.getByRole('listitem', { name: 'Phone' });
  await row.getByRole('button', { name: 'Strike off' }).click();
  await row.getByRole('button', { name: 'Yes, it is lost or gone' }).click();
  await expect(row).toBeHidden();
  await phone.reload();
  await expect(phone.getByText('This device is not one of the house yet')).toBeVisible();
  await phone.getByLabel('Name').fill('ines');
  await phone.getByLabel('Password', { exact: true }).fill('a fern behind glass');
  await phone.getByRole('button', { name: 'Sign in' }).click();
  await expect(phone.getByRole('region', { name: 'The bar in plan' })).toBeVisible();
  await elsewhere.close();
});

test('a passkey lets the head in from a device that is none of the house, until it is removed', async ({
  ines: page,
  bar,
  browser,
}) => {
  // Browsers give passkeys to a name, and not to a number.
  const elsewhere = await browser.newContext({ baseURL: bar.base.replace('127.0.0.1', 'localhost') });
  const laptop = await elsewhere.newPage();
  const cdp = await elsewhere.newCDPSession(laptop);
  await cdp.send('WebAuthn.enable');
  const { authenticatorId } = await cdp.send('WebAuthn.addVirtualAuthenticator', {
    options: {
      protocol: 'ctap2',
      transport: 'internal',
      hasResidentKey: true,
      hasUserVerification: true,
      isUserVerified: true,
      automaticPresenceSimulation: true,
    },
  });
  await signIn(laptop, 'Ines');
  await laptop.goto('/me');
  await laptop.getByLabel('What it is on').fill('L'.repeat(61));
  await expect(laptop.getByRole('button', { name: 'Make a passkey here' })).toBeDisabled();
  await laptop.getByLabel('What it is on').fill('Laptop');
  await laptop.getByRole('button', { name: 'Make a passkey here' }).dblclick();
  const own = laptop.getByRole('region', { name: 'Your passkeys' });
  await expect(own.getByText('Laptop, made today')).toHaveCount(1);
  // The same device makes no second one.
  await laptop.getByLabel('What it is on').fill('Laptop again');
  await laptop.getByRole('button', { name: 'Make a passkey here' }).click();
  await expect(own.getByText('This device holds a passkey of yours already.')).toBeVisible();
  await expectAccessible(laptop);

  await page.goto('/team');
  await page.getByLabel('This device').fill('Bar left');
  await page.getByRole('button', { name: 'Enrol this one' }).click();
  await expect(page.getByRole('listitem', { name: 'Bar left' })).toContainText('(this one)');

  await elsewhere.clearCookies();
  await laptop.goto('/');
  await expect(laptop.getByText('This device is not one of the house yet')).toBeVisible();
  await expectAccessible(laptop);
  // Whoever is not recognised by the device comes in by nothing.
  await cdp.send('WebAuthn.setUserVerified', { authenticatorId, isUserVerified: false });
  await laptop.getByRole('button', { name: 'Use a passkey' }).click();
  await expect(laptop.getByText('No passkey was given. Try again, or choose another way.')).toBeVisible();
  await cdp.send('WebAuthn.setUserVerified', { authenticatorId, isUserVerified: true });
  await laptop.getByRole('button', { name: 'Use a passkey' }).click();
  await expect(laptop.getByRole('region', { name: 'The bar in plan' })).toBeVisible();
  await page.goto('/journal/changes');
  await expect(page.getByText('Ines made a passkey')).toBeVisible();

  await laptop.goto('/me');
  await expect(own.getByText('Laptop, last used today')).toBeVisible();
  await own.getByRole('button', { name: 'Remove the passkey Laptop' }).click();
  await own.getByRole('button', { name: 'Remove the passkey Laptop' }).click();
  await expect(own.getByText('Laptop, last used today')).toBeHidden();
  await elsewhere.clearCookies();
  await laptop.goto('/');
  await laptop.getByRole('button', { name: 'Use a passkey' }).click();
  await expect(laptop.getByText(/^That passkey does not open this café/)).toBeVisible();
  await elsewhere.close();
});

test('who is at the tablet changes by one tap and a PIN, and the page stays', async ({ ines: page }) => {
  await page.goto('/coffee');
  await page.getByRole('button', { name: 'Signed in as Ines' }).click();
  const change = page.getByRole('form', { name: 'Somebody else goes on here' });
  await change.getByRole('combobox', { name: 'Who goes on here' }).click();
  await page.getByRole('option', { name: 'Tobin' }).click();
  await change.getByLabel('Their PIN').fill('9999');
  await change.getByRole('button', { name: 'Go on as Tobin' }).click();
  await expect(change.getByText(/That PIN does not match/)).toBeVisible();
  await change.getByLabel('Their PIN').fill('1357');
  await change.getByRole('button', { name: 'Go on as Tobin' }).click();
  await expect(page.getByRole('button', { name: 'Signed in as Tobin' })).toBeVisible();
  await expect(page.getByRole('heading', { name: 'Coffee', level: 1 })).toBeVisible();

  // Whoever stood here before is named already, and the keyboard is in the field.
  await page.getByRole('button', { name: 'Signed in as Tobin' }).click();
  await expect(change.getByRole('button', { name: 'Go on as Ines' })).toBeVisible();
  await expect(change.getByLabel('Their PIN')).toBeFocused();
  await page.keyboard.type('2468');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('button', { name: 'Signed in as Ines' })).toBeVisible();
});
