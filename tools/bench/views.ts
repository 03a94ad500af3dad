import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { chromium, type BrowserContext } from '@playwright/test';
import config from '../../playwright.config.ts';
import { openBench, signIn, startBar } from '../../e2e/bar.ts';
import type { Figure } from './figure.ts';
import { quantile } from './statistics.ts';

/** A bar's tablet beside the machine that builds this. */
const SLOWER = 4;
const OPENINGS = 5;
/** After the view stands, tasks that follow it are still counted. */
const WATCHED_MS = 2_500;

/** One view: its address, and what stands there once a barista can go on. */
interface View {
  name: string;
  path: string;
  ready: string;
}

/** What a page tells of one opening: when its view stood and how long its longest task was, ms. */
interface Opened {
  stoodMs: number;
  longestMs: number;
}

/**
 * How long each first view takes on a device that has the app already, at a CPU four times slower: from the address to the control
 * that the work goes on with, and the longest task on the way; with the server there, and with the server gone.
 */
export async function measureViews(): Promise<Figure[]> {
  const bar = await startBar();
  // A profile on disk, as a tablet has: in one that is thrown away a browser keeps nothing of what it has compiled.
  const profile = mkdtempSync(path.join(tmpdir(), 'tempera-bench-'));
  const context = await chromium.launchPersistentContext(profile, {
    ...config.use?.launchOptions,
    ...config.use?.contextOptions,
    baseURL: bar.base,
  });
  try {
    const page = await context.newPage();
    await signIn(page, 'Ines');
    await openBench(page, 'Decaf', 'Group 4');
    const views: View[] = [
      { name: 'home', path: '/', ready: 'section[aria-label="Next thing to do"] h1' },
      { name: 'opening', path: '/opening', ready: 'section[aria-label="Your next thing"] button' },
      { name: 'bench', path: new URL(page.url()).pathname, ready: 'section[aria-label="Dose"] button' },
    ];
    for (const view of views) {
      await page.goto(view.path);
      await page.waitForTimeout(WATCHED_MS);
    }
    await page.close();
    const figures = await openAll(context, views, '');
    await bar.stop();
    const alone = await openAll(context, views, ', with no server');
    return [...figures, ...alone];
  } finally {
    await context.close();
    await bar.remove();
    rmSync(profile, { recursive: true, force: true });
  }
}

async function openAll(context: BrowserContext, views: readonly View[], how: string): Promise<Figure[]> {
  const figures: Figure[] = [];
  const aimMs = how === '' ? 2_000 : 1_500;
  for (const view of views) {
    const opened: Opened[] = [];
    for (let i = 0; i < OPENINGS; i += 1) opened.push(await openOnce(context, view));
    const middle = (of: keyof Opened): number =>
      quantile(
        opened.map((one) => one[of]),
        0.5,
      );
    figures.push(
      { name: `${view.name} stands${how}, p50`, value: middle('stoodMs'), unit: 'ms', aim: `under ${aimMs}` },
      { name: `${view.name}: longest task${how}, p50`, value: middle('longestMs'), unit: 'ms', aim: 'under 200' },
    );
  }
  return figures;
}

async function openOnce(context: BrowserContext, view: View): Promise<Opened> {
  const page = await context.newPage();
  const slow = await context.newCDPSession(page);
  await slow.send('Emulation.setCPUThrottlingRate', { rate: SLOWER });
  await page.addInitScript((selector) => {
    const seen = { stoodMs: Number.NaN, longestMs: 0 };
    Object.assign(window, { seen });
    new PerformanceObserver((list) => {
      for (const { duration } of list.getEntries()) seen.longestMs = Math.max(seen.longestMs, duration);
    }).observe({ type: 'longtask', buffered: true });
    const watcher = new MutationObserver(() => {
      if (!document.querySelector(selector)) return;
      watcher.disconnect();
      // Drawn, not only decided.
      requestAnimationFrame(() => (seen.stoodMs = performance.now()));
    });
    watcher.observe(document, { childList: true, subtree: true });
  }, view.ready);
  await page.goto(view.path);
  await page.waitForTimeout(WATCHED_MS);
  await page.waitForFunction(() => !Number.isNaN((window as unknown as { seen: Opened }).seen.stoodMs));
  const seen = await page.evaluate(() => (window as unknown as { seen: Opened }).seen);
  await page.close();
  return seen;
}
