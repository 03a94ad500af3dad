import { chromium } from '@playwright/test';
import config from '../playwright.config.ts';
import { signIn, startBar } from '../e2e/bar.ts';
const bar = await startBar(10);
const browser = await chromium.launch(config.use?.launchOptions ?? {});
try {
  for (const [name, viewport] of [['t', { width: 1280, height: 800 }], ['p', { width: 390, height: 844 }]] as const) {
    const ctx = await browser.newContext({ baseURL: bar.base, viewport, locale: 'en-GB' });
    const page = await ctx.newPage();
    page.setDefaultTimeout(15000);
    await signIn(page, 'Ines');
    await page.waitForTimeout(1500);
    await page.screenshot({ path: `/tmp/${name}-home.png` });
    await page.goto('/opening');
    await page.waitForTimeout(2500);
    await page.screenshot({ path: `/tmp/${name}-opening.png` });
    if (name === 't') {
      await page.getByRole('button', { name: 'Change' }).click();
      await page.waitForTimeout(500);
      await page.screenshot({ path: `/tmp/${name}-change.png` });
      await page.getByRole('button', { name: 'Begin it anew' }).click();
      await page.waitForTimeout(500);
      await page.screenshot({ path: `/tmp/${name}-anew.png` });
      await page.getByRole('button', { name: 'No, go on' }).click();
      await page.getByRole('button', { name: 'Leave it as it is' }).click();
    }
    for (const kind of ['Milk station', 'Check the scale', 'Throw the first dose of House', 'Read the gauges of Moss']) {
      const b = page.getByRole('button', { name: new RegExp('^Do: ' + kind) });
      if (await b.count()) { await b.click(); await page.waitForTimeout(600); await page.screenshot({ path: `/tmp/${name}-${kind.replace(/\W/g, '')}.png` });
        const buttons = await page.locator('section[aria-label="Your next thing"] button').evaluateAll((els) => els.map((e) => [e.textContent, Math.round(e.getBoundingClientRect().bottom)]));
        console.log(name, kind, JSON.stringify(buttons)); }
    }
    await ctx.close();
  }
} finally { await browser.close(); await bar.remove(); }
