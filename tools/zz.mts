import { chromium } from '@playwright/test';
import config from '../playwright.config.ts';
import { startBar, signIn, signOffAtOnce } from '../e2e/bar.ts';
const bar = await startBar();
const browser = await chromium.launch(config.use?.launchOptions ?? {});
const ctx = await browser.newContext({ baseURL: bar.base, viewport: { width: 1280, height: 800 } });
const page = await ctx.newPage();
page.on('pageerror', (e) => console.log('ERR', e.message));
await signIn(page, 'Ines');
await signOffAtOnce(page);
await page.goto('/');
await page.waitForTimeout(1500);
await page.screenshot({ path: '/tmp/day1.png', fullPage: true });
const more = page.getByRole('button', { name: 'More' }).first();
if (await more.count()) { await more.click(); await page.waitForTimeout(300); await page.screenshot({ path: '/tmp/day2.png', fullPage: true }); }
await ctx.close();
await browser.close();
await bar.remove();
