import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { chromium, type BrowserContext, type Page } from '@playwright/test';
import type { Bar } from '@tempera/contract/bar';
import type { NewFact } from '@tempera/contract/journal';
import type { Session } from '@tempera/contract/team';
import { MS_PER_SECOND } from '@tempera/core/numbers';
import config from '../../playwright.config.ts';
import { openBench, signIn, startBar } from '../../e2e/bar.ts';
import type { Figure } from './figure.ts';
import { aShot } from './http.ts';
import { quantile } from './statistics.ts';

/** A bar's tablet beside the machine that builds this. */
const SLOWER = 4;
const OPENINGS = 5;
/** A shift and more of one tablet that was alone. */
const UNSENT = 2_000;
const LOOKS_EVERY_MS = 500;
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
    const { bar: read, siteId, personId } = await barOf(page);
    const shots = Array.from({ length: UNSENT }, () => aShot(read, siteId, personId));
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
    await leaveUnsent(context, shots);
    const loaded = await openAll(context, views.slice(0, 1), `, with no server and ${UNSENT} entries unsent`);
    await bar.start();
    const settledMs = await sendAll(context, shots);
    return [...figures, ...alone, ...loaded, ...settled(settledMs)];
  } finally {
    await context.close();
    await bar.remove();
    rmSync(profile, { recursive: true, force: true });
  }
}

/** What a page tells of its bar. */
async function barOf(page: Page): Promise<{ bar: Bar; siteId: string; personId: string }> {
  const read = async <T>(address: string): Promise<T> => (await (await page.request.get(address)).json()) as T;
  const { site, person } = await read<Session>('/api/session');
  return { bar: await read<Bar>('/api/bar'), siteId: site.id, personId: person.id };
}

/** A whole day's entries as a tablet keeps them that has been alone all the while. */
async function leaveUnsent(context: BrowserContext, facts: readonly NewFact[]): Promise<void> {
  const page = await context.newPage();
  await page.goto('/');
  await page.evaluate(
    (entries) =>
      new Promise<void>((resolve, reject) => {
        const opening = indexedDB.open('tempera-outbox');
        opening.onerror = () => reject(new Error('the outbox cannot be opened'));
        opening.onsuccess = () => {
          const change = opening.result.transaction('entries', 'readwrite');
          for (const { id, ...entry } of entries) change.objectStore('entries').put(entry, id);
          change.oncomplete = () => resolve();
        };
      }),
    facts.map((fact, place) => ({ id: fact.id, place, fact: JSON.stringify(fact), refusal: null })),
  );
  await page.close();
}

/** The server is back: how long until the last entry is with it, ms. @throws Error where one of them is not */
async function sendAll(context: BrowserContext, facts: readonly NewFact[]): Promise<number> {
  const page = await context.newPage();
  const began = performance.now();
  await page.goto('/');
  while ((await page.evaluate(countUnsent)) > 0) await page.waitForTimeout(LOOKS_EVERY_MS);
  const tookMs = performance.now() - began;
  for (const { id } of facts) {
    const answer = await page.request.get(`/api/facts/${id}`);
    if (!answer.ok()) throw new Error(`an entry was lost: ${id}`);
  }
  await page.close();
  return tookMs;
}

/** Looked at in the page: how many entries wait there. */
const countUnsent = (): Promise<number> =>
  new Promise((resolve) => {
    const opening = indexedDB.open('tempera-outbox');
    opening.onsuccess = () => {
      const left = opening.result.transaction('entries').objectStore('entries').count();
      left.onsuccess = () => {
        opening.result.close();
        resolve(left.result);
      };
    };
  });

const settled = (ms: number): Figure[] => [
  { name: `${UNSENT} entries of one tablet, sent in order in`, value: ms / MS_PER_SECOND, unit: 's' },
];

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
