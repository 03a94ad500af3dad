import { chromium } from '@playwright/test';
import config from '../playwright.config.ts';
import { signIn, startBar } from '../e2e/bar.ts';
const bar = await startBar(10);
const browser = await chromium.launch(config.use?.launchOptions ?? {});
try {
  for (const [name, viewport, colorScheme] of [['t', { width: 1280, height: 800 }, 'light'], ['p', { width: 390, height: 844 }, 'dark']] as const) {
    const ctx = await browser.newContext({ baseURL: bar.base, viewport, locale: 'en-GB', colorScheme });
    const page = await ctx.newPage();
    page.setDefaultTimeout(15000);
    await signIn(page, 'Ines');
    await page.goto('/opening');
    await page.waitForTimeout(1500);
    const b = page.getByRole('button', { name: /^Do: Taste/ }).first();
    if (await b.count()) { await b.click(); await page.waitForTimeout(700); }
    else console.log('no taste do');
    await page.screenshot({ path: `/tmp/${name}-taste.png` });
    await page.getByRole('radiogroup', { name: /^Acidity/ }).getByText('9', { exact: true }).click();
    await page.getByRole('button', { name: /^Keep/ }).click();
    await page.waitForTimeout(900);
    await page.screenshot({ path: `/tmp/${name}-taste2.png` });
    await ctx.close();
  }
} finally { await browser.close(); await bar.remove(); }
