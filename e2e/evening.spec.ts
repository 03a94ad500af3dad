import type { Page } from '@playwright/test';
import type { Session } from '@tempera/contract/team';
import { v7 as uuidv7 } from 'uuid';
import { expectAccessible } from './accessible.ts';
import { expect, instruction, signIn, test } from './bar.ts';

test.use({ moment: 'close' });

/** What is done at each kind of step of a closing, by the words of its title. */
const ways: [RegExp, (page: Page) => Promise<void>][] = [
  [
    /^Empty the hopper/,
    async (page) => {
      await page.getByRole('textbox', { name: /The beans weigh/ }).fill('430');
      await page.getByRole('button', { name: 'Keep what it weighs' }).click();
    },
  ],
  [
    /^Back-flush/,
    async (page) => {
      await page.getByRole('checkbox', { name: /Flushed on with clear water/ }).check();
      await page.getByRole('button', { name: /is flushed$/ }).click();
    },
  ],
  [/^Switch .* off$/, async (page) => page.getByRole('button', { name: /is off$/ }).click()],
  [/^See to what falls due/, async (page) => page.getByRole('button', { name: /another day|Nothing more/ }).click()],
  [/^Set the next day/, async (page) => page.getByRole('button', { name: 'The next day is set' }).click()],
  [
    /./,
    async (page) => {
      const step = page.getByRole('region', { name: 'Your next thing' });
      for (const box of await step.getByRole('checkbox').all()) await box.check();
      await step.getByRole('button', { name: /(are|is) (brushed|clean)$|^They soak$/ }).click();
    },
  ],
];

/** Does the step before this person, whatever it is; answers its title. */
async function doOne(page: Page): Promise<string> {
  const title = await instruction(page).innerText();
  await ways.find(([of]) => of.test(title))?.[1](page);
  await expect(instruction(page)).not.toHaveText(title);
  // The keyboard goes on where the next step begins.
  await expect(page.getByRole('region', { name: 'Your next thing' })).toBeFocused();
  return title;
}

/** A grinder gone over once more in the afternoon, and left as it is. */
async function afternoonOf(page: Page, grinder: string): Promise<void> {
  await page.goto('/opening');
  await page.getByRole('button', { name: 'Begin another run' }).click();
  await page.getByText('One station').click();
  await page.getByRole('group', { name: 'Grinders' }).getByText(grinder).click();
  await page.getByRole('button', { name: 'Begin this station' }).click();
  while (!/^Sign off/.test(await instruction(page).innerText())) {
    const title = await instruction(page).innerText();
    await page.getByRole('button', { name: 'Leave it out' }).click();
    await page.getByRole('button', { name: 'Not in use today' }).click();
    await expect(instruction(page)).not.toHaveText(title);
  }
  await page.getByRole('link', { name: 'Sign-off' }).click();
  await page.getByRole('button', { name: 'Sign it off as it stands' }).click();
  await expect(page.getByText(/Signed by Tobin/)).toBeVisible();
}

test('a day goes from its afternoon over a hand-over to a closing by two people, and the next morning finds what was left', async ({
  page,
  bar,
  browser,
}) => {
  await signIn(page, 'Tobin');
  await afternoonOf(page, 'Guest');
  // Tobin leaves the bar, and Ines takes it over in her pocket.
  await page.goto('/day/handover');
  await page.getByRole('button', { name: 'I leave it so' }).click();
  await expect(page.getByText('You have left it')).toBeVisible();
  const pocket = await browser.newContext({ baseURL: bar.base, viewport: { width: 390, height: 844 } });
  const phone = await pocket.newPage();
  await signIn(phone, 'Ines');
  await phone.getByRole('link', { name: 'Read the hand-over' }).click();
  await phone.getByRole('button', { name: 'I take it over' }).click();
  await expect(phone.getByText(/Tobin left the bar/)).toBeHidden();

  await page.goto('/');
  await page.getByRole('link', { name: 'Begin the closing' }).click();
  await expect(page.getByRole('radio', { name: 'Closing' })).toBeChecked();
  await page.getByRole('checkbox', { name: 'Ines', exact: true }).check();
  await page.getByRole('button', { name: 'Begin the closing' }).click();

  // Ines does hers on her phone; what one has in hand is never the other's.
  await phone.goto('/');
  // Guests are still served: the day stands below the run.
  await expect(phone.getByRole('region', { name: 'The day' })).toBeVisible();
  await phone.getByRole('link', { name: 'To the closing' }).click();
  await expect(phone.getByRole('region', { name: 'Your next thing' })).toBeVisible();
  const done: string[] = [];
  for (let i = 0; i < 3; i += 1) done.push(await doOne(phone));
  await expectAccessible(phone);
  await pocket.close();

  const seen = new Set<string>();
  while (!/^Sign off/.test(await instruction(page).innerText())) {
    const title = await instruction(page).innerText();
    const kind = title.split(' ')[0] ?? '';
    if (!seen.has(kind)) await expectAccessible(page);
    seen.add(kind);
    if (title === 'Empty the trays of Moss') {
      await page.getByRole('button', { name: 'Leave it out' }).click();
      await page.getByRole('button', { name: 'No time' }).click();
      await expect(instruction(page)).not.toHaveText(title);
    } else done.push(await doOne(page));
  }
  expect(done.filter((title) => title.startsWith('Back-flush'))).toHaveLength(5);
  expect(done.filter((title) => title.startsWith('Empty the hopper'))).toHaveLength(4);
  expect(done).toContain('Set the next day');

  // The page that is signed says what was left out, and what the beans weigh.
  await page.getByRole('link', { name: 'Sign-off' }).click();
  await expect(page.getByText('Left out: Empty the trays of Moss. No time')).toBeVisible();
  await expect(page.getByRole('region', { name: 'Beans in their tubs' })).toContainText('House, Canopy blend: 430.0 g');
  await expectAccessible(page);
  await page.getByRole('button', { name: 'Sign it off as it stands' }).click();
  await expect(page.getByText(/Signed by Tobin/)).toBeVisible();

  // Home is calm: closed, when it opens and who opens it.
  await page.goto('/');
  await expect(page.getByRole('heading', { name: 'The bar is closed' })).toBeVisible();
  await expect(
    page.getByText(/It opens .* at \d\d:\d\d, Ines opens\. One job was left for the morning\./),
  ).toBeVisible();

  // The tub is the stock.
  await page.goto('/coffee');
  await expect(page.getByText(/In House, about 0\.4\d? kg left/)).toBeVisible();

  // The morning after: detergent is known, what was left out is asked first.
  await page.goto('/');
  await page.getByRole('link', { name: 'To the opening' }).click();
  await expect(page.getByText(/Flushed with detergent last night: Group 1/)).toBeVisible();
  await expect(page.getByText(/Left out last night, so it comes first: Empty the trays of Moss/)).toBeVisible();
  await expect(page.getByRole('checkbox', { name: /cleaned with detergent/ })).toBeChecked();
  await page.getByRole('button', { name: 'Begin the opening' }).click();
  await expect(page.getByRole('listitem').filter({ hasText: 'Empty the trays of Moss' })).toBeVisible();
});

test('a bag is split, and each portion frozen by itself', async ({ page }) => {
  await signIn(page, 'Tobin');
  await page.goto('/coffee/bags');
  const find = page.getByLabel(/Find by coffee/);
  await find.fill('Dusk');
  const closed = page.getByRole('row').filter({ hasText: 'Dusk decaf' }).filter({ hasText: 'closed' });
  await closed.first().getByRole('link').click();
  const split = page.getByRole('region', { name: 'Split into portions' });
  await expect(split.getByText('4 times 250.0 g')).toBeVisible();
  await split.getByRole('button', { name: 'Split it' }).click();
  await expect(page.getByRole('heading', { level: 1, name: 'Bags' })).toBeVisible();
  await find.fill('portion');
  await expect(page.getByRole('row').filter({ hasText: /portion \d of 4/ })).toHaveCount(4);
  await expect(page.getByRole('row').filter({ hasText: 'Frozen' })).toHaveCount(4);
});

test('after the closing a tablet that nobody touches is locked, and what was on it is there again after a PIN', async ({
  page,
}) => {
  await page.clock.install();
  await signIn(page, 'Ines');
  const { person, site } = (await (await page.request.get('/api/session')).json()) as Session;
  const write = async (body: object): Promise<void> => {
    const sent = { id: uuidv7(), at: new Date().toISOString(), skewMs: null, personId: person.id, siteId: site.id };
    const data = { ...sent, kind: 'step', grinderId: null, groupId: null, body };
    expect((await page.request.post('/api/facts', { data })).status()).toBe(201);
  };
  const from = new Date().toISOString();
  const people = [{ personId: person.id, from }];
  await write({ step: 'planned', run: 'closing', opensAt: from, from, people, detergent: false });
  const fiveMinutesOn = (): Promise<void> => page.clock.fastForward(5.5 * 60_000);

  // While somebody may still be at it nothing is locked.
  await page.goto('/coffee/coffees/new');
  await page.getByLabel('Name', { exact: true }).fill('Late idea');
  await fiveMinutesOn();
  await expect(page.getByLabel('Name', { exact: true })).toHaveValue('Late idea');
  await write({ step: 'signedOff', notRight: [] });
  await page.mouse.move(200, 200);
  await page.clock.runFor(2_000);
  await fiveMinutesOn();
  const lock = page.getByRole('dialog', { name: 'The bar is closed' });
  await expect(lock.getByRole('heading', { name: 'Ines, your PIN' })).toBeVisible();
  await expectAccessible(page);
  // It is no curtain: the session has ended, and a reload opens nothing.
  expect((await page.request.get('/api/journal')).status()).toBe(401);
  for (const digit of '1111') await lock.getByRole('button', { name: digit, exact: true }).click();
  await lock.getByRole('button', { name: 'Sign in' }).click();
  await expect(lock.getByText(/That PIN does not match/)).toBeVisible();
  for (const digit of '2468') await lock.getByRole('button', { name: digit, exact: true }).click();
  await lock.getByRole('button', { name: 'Sign in' }).click();
  await expect(lock).toBeHidden();
  await expect(page.getByLabel('Name', { exact: true })).toHaveValue('Late idea');

  await page.mouse.move(300, 300);
  await fiveMinutesOn();
  await expect(lock).toBeVisible();
  await page.reload();
  await expect(lock.getByRole('heading', { name: 'Ines, your PIN' })).toBeVisible();
  await lock.getByRole('button', { name: 'Somebody else is here' }).click();
  await expect(page.getByRole('heading', { name: 'Who is at the bar?' })).toBeVisible();
});
