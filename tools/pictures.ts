import path from 'node:path';
import { chromium, type Browser, type Page } from '@playwright/test';
import config from '../playwright.config.ts';
import { openBench, pull, signIn, signOffAtOnce, startBar, untilInCup, weigh } from '../e2e/bar.ts';
import { demoId } from '../apps/server/src/practice/demoBar.ts';
import { ensureBuilt } from './setup/builder.ts';
import { root } from './setup/paths.ts';

const folder = path.join(root, 'docs/screenshots');
const TABLET = { width: 1280, height: 800 };
const PHONE = { width: 390, height: 844 };

/** `npm run pictures`: takes the README's pictures anew, from the demo café. */
export async function main(): Promise<void> {
  await ensureBuilt();
  const bar = await startBar(4);
  const browser = await chromium.launch(config.use?.launchOptions ?? {});
  try {
    await tabletByDay(browser, bar.base);
    await others(browser, bar.base);
    await evening(browser);
  } finally {
    await browser.close();
    await bar.remove();
  }
}

/** The same café before it closes. */
async function evening(browser: Browser): Promise<void> {
  const bar = await startBar(4, 'close');
  try {
    const page = await newPage(browser, bar.base, TABLET, 'light');
    await signIn(page, 'Tobin');
    await page.getByRole('link', { name: 'Begin the closing' }).click();
    await page.getByRole('button', { name: 'Begin the closing' }).click();
    await page.getByRole('button', { name: 'Do: Empty the hopper of House' }).click();
    await page.getByRole('textbox', { name: /The beans weigh/ }).fill('430');
    await page.evaluate(() => window.scrollTo(0, 0));
    await shoot(page, 'closing');
  } finally {
    await bar.remove();
  }
}

const fileOf = (name: string): string => path.join(folder, `${name}.png`);

async function settle(page: Page): Promise<void> {
  // Charts and fonts come late.
  const SETTLE_MS = 700;
  await page.mouse.move(0, 0);
  await page.waitForTimeout(SETTLE_MS);
}

async function shoot(page: Page, name: string): Promise<void> {
  await settle(page);
  await page.screenshot({ path: fileOf(name) });
}

/** By day and before dawn in one picture: phones beside each other, tablets one above the other. */
async function shootInBoth(page: Page, name: string): Promise<void> {
  const GAP_PX = 10;
  const size = page.viewportSize() ?? TABLET;
  const taken: string[] = [];
  for (const colorScheme of ['light', 'dark'] as const) {
    await page.emulateMedia({ colorScheme });
    await settle(page);
    taken.push((await page.screenshot()).toString('base64'));
  }
  await page.emulateMedia({ colorScheme: 'light' });
  const isPhone = size.width < size.height;
  const sheet = await page.context().newPage();
  await sheet.setViewportSize({
    width: isPhone ? 2 * size.width + GAP_PX : size.width,
    height: isPhone ? size.height : 2 * size.height + GAP_PX,
  });
  const images = taken.map((png) => `<img src="data:image/png;base64,${png}" alt="">`).join('');
  await sheet.setContent(
    `<body style="margin:0;display:flex;gap:${GAP_PX}px;flex-direction:${isPhone ? 'row' : 'column'}">${images}</body>`,
  );
  await sheet.screenshot({ path: fileOf(name) });
  await sheet.close();
}

async function newPage(
  browser: Browser,
  baseURL: string,
  viewport: typeof TABLET,
  colorScheme: 'light' | 'dark',
): Promise<Page> {
  const context = await browser.newContext({ baseURL, viewport, colorScheme, locale: 'en-GB' });
  return context.newPage();
}

async function tabletByDay(browser: Browser, base: string): Promise<void> {
  const page = await newPage(browser, base, TABLET, 'light');
  await signIn(page, 'Ines');
  await shoot(page, 'home');
  await opening(page, 'opening');
  await page.getByRole('link', { name: 'The plan' }).click();
  await page.getByRole('region', { name: 'People' }).waitFor();
  await shoot(page, 'opening-plan');
  await openBench(page, 'House', 'Group 1');
  // The collar was turned at night: a first dose clears what lay in the chute.
  await weigh(page);
  await page.getByRole('button', { name: 'Throw it out and weigh again' }).click();
  await weigh(page);
  await page.locator('body').press('Space');
  await untilInCup(page, 20);
  await shoot(page, 'bench-during');
  await untilInCup(page, 34);
  await page.locator('body').press('Space');
  await page.getByText('still dripping').waitFor({ state: 'hidden' });
  await shoot(page, 'bench-advice');
  await dialIn(page);
  await page.goto('/devices');
  await page.getByRole('button', { name: 'A Bluetooth scale' }).click();
  await page.getByRole('button', { name: 'A scale on a cable' }).click();
  await page.getByRole('group', { name: 'What its numbers mean' }).waitFor();
  await shootInBoth(page, 'devices');
  await page.goto(`/taste/${demoId('grinder House')}`);
  await page
    .getByRole('radiogroup', { name: /^Acidity/ })
    .getByText('9', { exact: true })
    .click();
  await page.getByRole('button', { name: /^Keep/ }).click();
  await page.getByRole('region', { name: 'What the tasters say' }).waitFor();
  await shoot(page, 'taste');
  await page.goto('/opening/sign-off');
  await page.getByRole('region', { name: 'Groups' }).waitFor();
  await shoot(page, 'sign-off');
  await page.goto('/house/policies');
  await page.getByRole('radio', { name: 'One repeat' }).click();
  await shoot(page, 'house-policies');
  await office(page);
  await page.goto('/journal');
  await page.getByRole('row').nth(1).waitFor();
  await shoot(page, 'journal');
}

/** The run of the opening, once the morning is planned. */
async function opening(page: Page, name: string, take = shoot): Promise<void> {
  await page.goto('/opening');
  await page.getByText(/sure by/).waitFor();
  await take(page, name);
}

/** The office side, page by page. */
async function office(page: Page): Promise<void> {
  await page.goto('/plan');
  await page.getByRole('button', { name: /^Decaf, / }).click();
  await shoot(page, 'plan');
  await page.goto('/bar');
  await page.getByRole('region', { name: 'Grinders' }).getByRole('link', { name: 'House' }).click();
  await page.getByText(/^Learned from/).waitFor();
  await shoot(page, 'grinder-sheet');
  await page.goto('/house');
  await page.getByRole('link', { name: 'House double' }).click();
  await page.getByText('Each time the same').waitFor();
  await shoot(page, 'recipe');
  await page.goto('/coffee');
  await page
    .getByText(/working days/)
    .first()
    .waitFor();
  await shoot(page, 'coffee');
  await page.goto('/day');
  await page.getByText(/timed shots were inside/).waitFor();
  await page.locator('canvas').first().waitFor();
  await shoot(page, 'grinder-history');
}

async function dialIn(page: Page): Promise<void> {
  const lock = page.getByRole('button', { name: /^Lock at/ });
  while (!(await lock.isVisible())) {
    const act = page.getByRole('button', { name: 'Do it' });
    if (await act.isVisible()) await act.click();
    await weigh(page);
    await pull(page, 34);
  }
  await lock.click();
}

/** First drop and end of a shot of some 27 s, at the speed of the pictures' bar. */
const FIRST_DROP_MS = 1_300;
const BY_HAND_MS = 5_000;

async function others(browser: Browser, base: string): Promise<void> {
  const phone = await newPage(browser, base, PHONE, 'light');
  await signIn(phone, 'Tobin');
  await openBench(phone, 'Decaf', 'Group 4');
  await phone.getByText('By hand').click();
  await phone.getByRole('button', { name: /^Pull/ }).click();
  await phone.waitForTimeout(FIRST_DROP_MS);
  await phone.getByRole('button', { name: 'First drop' }).click();
  await phone.waitForTimeout(BY_HAND_MS);
  await phone.getByRole('button', { name: /^Stop/ }).click();
  await phone.getByText(/^In the simulated cup/).waitFor();
  await phone.evaluate(() => window.scrollTo(0, 0));
  await shootInBoth(phone, 'bench-phone');
  await opening(phone, 'opening-phone', shootInBoth);
  await day(await newPage(browser, base, TABLET, 'dark'));
}

/** The bar signed off, and the day behind the counter; in the dark scheme. */
async function day(page: Page): Promise<void> {
  await signIn(page, 'Ines');
  await signOffAtOnce(page);
  await page.goto('/');
  await page.getByRole('region', { name: 'The day' }).waitFor();
  await shoot(page, 'day-before-dawn');
}
