import { chromium } from 'playwright';
import config from '../playwright.config.ts';
import { demoId } from '../apps/server/src/practice/demoBar.ts';
import { startBar, signIn } from '../e2e/bar.ts';
const bar = await startBar(10, 'close');
const browser = await chromium.launch(config.use?.launchOptions ?? {});
const page = await browser.newPage({ baseURL: bar.base, viewport: { width: 1280, height: 800 } });
const shot = (n: string) => page.screenshot({ path: `/tmp/zz-${n}.png` });
try {
  await signIn(page, 'Tobin');
  await page.waitForTimeout(1500);
  await shot('home');
  await page.goto('/opening');
  await page.waitForTimeout(800);
  await page.getByRole('button', { name: 'Begin another run' }).click();
  await page.waitForTimeout(500);
  await shot('plan');
  await page.getByRole('button', { name: 'Begin the closing' }).click();
  await page.waitForTimeout(1500);
  await shot('first');
  const job = async (key: string) => {
    await page.goto('/opening?job=' + encodeURIComponent(key));
    await page.waitForTimeout(900);
  };
  await job('emptyHopper:' + demoId('grinder House'));
  await page.getByRole('textbox', { name: /The beans weigh/ }).fill('430');
  await shot('empty');
  await job('upkeep:bar');
  await shot('upkeep');
  for (const g of ['House', 'Guest', 'Decaf', 'Brew']) {
    await job('emptyHopper:' + demoId('grinder ' + g));
    await page.getByRole('textbox', { name: /The beans weigh/ }).fill(g === 'Guest' ? '120' : '330');
    await page.getByRole('button', { name: 'Keep what it weighs' }).click();
    await page.waitForTimeout(200);
  }
  await job('tomorrow:bar');
  await shot('tomorrow');
  await page.goto('/opening/plan');
  await page.waitForTimeout(1500);
  await shot('timeline');
  await page.goto('/opening/sign-off');
  await page.waitForTimeout(900);
  await shot('signoff');
  await page.goto('/bar/upkeep');
  await page.waitForTimeout(900);
  await shot('upkeeppage');
  await page.goto('/coffee');
  await page.waitForTimeout(900);
  await shot('coffee');
  await page.goto('/house/cafe');
  await page.waitForTimeout(900);
  await page.screenshot({ path: '/tmp/zz-cafe.png', fullPage: true });
  await page.setViewportSize({ width: 390, height: 844 });
  await job('tomorrow:bar');
  await shot('tomorrow-phone');
} finally {
  await shot('end');
  await browser.close();
  await bar.remove();
}
