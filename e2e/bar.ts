import path from 'node:path';
import type { Session } from '@tempera/contract/team';
import { v4 as uuidv4, v7 as uuidv7 } from 'uuid';
import { pathToFileURL } from 'node:url';
import { test as base, expect, type Locator, type Page } from '@playwright/test';
import pg from 'pg';
import { pino } from 'pino';
import { freePort } from '../tools/setup/cluster.ts';
import type { Config, DemoMoment } from '../apps/server/src/kernel/config.ts';
import { serverDist, webDist } from '../tools/setup/paths.ts';
import { hearTheShots, quietDemo } from '../tools/setup/quietDemo.ts';
import { sharedCluster, throwAwayCluster, type ClusterAddress } from './cluster.ts';

type ServerModule = typeof import('../apps/server/src/app/server.ts');

/** A whole bar of its own for each test: a database, the server as built for production, the demo café. */
export interface BarServer {
  base: string;
  /** Takes the server down. */
  stop(): Promise<void>;
  /** Brings it up again, on the same data and address. */
  start(): Promise<void>;
}

/** Ten times life: a shot takes three seconds, and a test can still stop it where it wants. */
const SPEED = 10;

/** The test run's PostgreSQL, or one of this process's own where there is no test run. */
let cluster: Promise<ClusterAddress> | null = null;

async function ownCluster(): Promise<ClusterAddress> {
  const started = await throwAwayCluster();
  process.once('exit', started.remove);
  return started;
}

const clusterHere = (): Promise<ClusterAddress> => (cluster ??= Promise.resolve(sharedCluster() ?? ownCluster()));

async function asAdmin<T>(work: (admin: pg.Client) => Promise<T>): Promise<T> {
  const { adminUrl } = await clusterHere();
  const admin = new pg.Client({ connectionString: adminUrl });
  await admin.connect();
  try {
    return await work(admin);
  } finally {
    await admin.end();
  }
}

async function startServerOn(database: string, changes: Partial<Config>) {
  const { url, ownerUrl } = await clusterHere();
  const { startServer } = (await import(pathToFileURL(path.join(serverDist, 'server.js')).href)) as ServerModule;
  const named = (of: string): string => Object.assign(new URL(of), { pathname: `/${database}` }).toString();
  return startServer(
    quietDemo({ ...changes, databaseUrl: named(url), ownerUrl: named(ownerUrl) }),
    pino({ level: 'silent' }),
  );
}

/** Any number will do: one worker sets a stage, while others that want it wait. */
const STAGE_LOCK = 7_316_404;

/**
 * The demo café at one of its moments, loaded once in a test run and copied for each test: loading it, and hearing what
 * its shots taught, takes longer than copying. @returns the name of the database to copy
 */
function stageOf(demo: DemoMoment): Promise<string> {
  const name = `stage_${demo}`;
  return asAdmin(async (admin) => {
    await admin.query('SELECT pg_advisory_lock($1)', [STAGE_LOCK]);
    const { rowCount } = await admin.query('SELECT 1 FROM pg_database WHERE datname = $1', [name]);
    if (rowCount === 0) {
      // Only what was set to its end bears the name.
      await admin.query(`DROP DATABASE IF EXISTS ${name}_being_set WITH (FORCE)`);
      await admin.query(`CREATE DATABASE ${name}_being_set OWNER tempera`);
      const server = await startServerOn(`${name}_being_set`, { demo });
      await hearTheShots(server);
      await server.close();
      await admin.query(`ALTER DATABASE ${name}_being_set RENAME TO ${name}`);
    }
    return name;
  });
}

/** @param demo null: an empty database, where a café is still to be set up @param webRoot another build of the web app */
export async function startBar(
  speed = SPEED,
  demo: DemoMoment | null = 'opening',
  webRoot = webDist,
): Promise<BarServer & { remove(): Promise<void> }> {
  const database = `bar_${uuidv4().replaceAll('-', '')}`;
  const template = demo ? `TEMPLATE ${await stageOf(demo)}` : '';
  await asAdmin((admin) => admin.query(`CREATE DATABASE ${database} OWNER tempera ${template}`));
  const port = await freePort();
  let server: Awaited<ReturnType<typeof startServerOn>> | null = null;
  const bar = {
    base: `http://127.0.0.1:${port}`,
    start: async () => {
      server = await startServerOn(database, { port, speed, demo, webRoot });
    },
    stop: async () => {
      await server?.close();
      server = null;
    },
    remove: async () => {
      await bar.stop();
      await asAdmin((admin) => admin.query(`DROP DATABASE ${database} WITH (FORCE)`));
    },
  };
  await bar.start();
  return bar;
}

export const test = base.extend<{ bar: BarServer; ines: Page; moment: DemoMoment; speed: number }>({
  /** How many times life it runs. */
  speed: [SPEED, { option: true }],
  /** At which moment of its day the demo café is. */
  moment: ['opening', { option: true }],
  /** A page that never asks for what the content security policy forbids. */
  page: async ({ page }, use) => {
    const forbidden: string[] = [];
    page.on('console', (message) => {
      if (message.type() === 'error' && /content security policy/i.test(message.text())) forbidden.push(message.text());
    });
    await use(page);
    expect(forbidden).toEqual([]);
  },
  bar: async ({ moment, speed }, use) => {
    const bar = await startBar(speed, moment);
    await use(bar);
    await bar.remove();
  },
  baseURL: ({ bar }, use) => use(bar.base),
  /** A page with the head barista signed in, at the bar. */
  ines: async ({ page }, use) => {
    await signIn(page, 'Ines');
    await use(page);
  },
});

export { expect };

export async function signIn(page: Page, name: string): Promise<void> {
  await page.goto('/');
  const card = page.getByRole('button', { name: new RegExp(`^${name}`) });
  const pin = /PIN (\d+)/.exec(await card.innerText())?.[1] ?? '';
  await card.click();
  for (const digit of pin) await page.getByRole('button', { name: digit, exact: true }).click();
  await page.getByRole('button', { name: 'Sign in' }).click();
  await expect(page.getByRole('region', { name: 'The bar in plan' })).toBeVisible();
}

/** Signs the opening off without going through it. */
export async function signOffAtOnce(page: Page): Promise<void> {
  const { person, site } = (await (await page.request.get('/api/session')).json()) as Session;
  const sent = { id: uuidv7(), at: new Date().toISOString(), skewMs: null, personId: person.id, siteId: site.id };
  const body = { step: 'signedOff', notRight: [] };
  const answer = await page.request.post('/api/facts', {
    data: { ...sent, kind: 'step', grinderId: null, groupId: null, body },
  });
  expect(answer.status(), await answer.text()).toBe(201);
}

/** Opens a grinder's bench by tapping it on the plan and choosing a group. */
export async function openBench(page: Page, grinder: string, group: string): Promise<void> {
  await page.goto('/');
  await page
    .getByRole('region', { name: 'The bar in plan' })
    .getByRole('link', { name: new RegExp(grinder) })
    .click();
  await page.getByRole('link', { name: new RegExp(group) }).click();
  await benchShown(page);
}

export async function benchShown(page: Page): Promise<void> {
  await expect(
    page
      .getByRole('region', { name: 'Dose' })
      .or(page.getByRole('region', { name: 'Advice' }))
      .first(),
  ).toBeVisible();
}

export const instruction = (page: Page): Locator => page.getByRole('heading', { level: 1 });
export const advicePanel = (page: Page): Locator => page.getByRole('region', { name: 'Advice' });

/** Begins the opening in hand anew, as somebody who comes in would. */
export async function beginOpening(page: Page): Promise<void> {
  await page.goto('/opening');
  await page.getByRole('button', { name: 'Change' }).click();
  await page.getByRole('button', { name: 'Begin it anew' }).click();
  await page.getByRole('button', { name: 'Begin anew', exact: true }).click();
  await expect(page.getByText(/, 0 of \d+ done/)).toBeVisible();
}

/** Unfolds what is over in the list of all jobs. */
export async function unfoldDone(page: Page): Promise<void> {
  await page.getByText(/^\d+ done or left out$/).click();
}

/** Grinds onto the scale and keeps the dose. */
export async function weigh(page: Page): Promise<void> {
  await page.getByRole('button', { name: /^Grind \d/ }).click();
  const keep = page.getByRole('button', { name: /^Keep \d/ });
  await expect(page.getByRole('button', { name: /^Grind \d/ })).toBeEnabled();
  await keep.click();
  await expect(instruction(page)).toHaveText('Lock in and pull the shot');
}

/** Waits until the cup shows `g`. The page itself looks: asking it from here, thirty times a second, would hold it up. */
export async function untilInCup(page: Page, g: number): Promise<void> {
  const shot = await page.getByRole('region', { name: 'Shot', exact: true }).elementHandle();
  await page.waitForFunction(
    ([panel, atLeast]) => Number(/in the cup\s*([\d.]+)/.exec(panel.textContent)?.[1] ?? 0) >= atLeast,
    [shot, g] as const,
    { polling: 'raf', timeout: 30_000 },
  );
}

/** Pulls with the space bar and stops when the cup shows `atG`. Returns once the slip is written. */
export async function pull(page: Page, atG: number): Promise<void> {
  await page.locator('body').press('Space');
  await expect(page.getByRole('button', { name: /^Stop/ })).toBeVisible();
  await untilInCup(page, atG);
  await page.locator('body').press('Space');
  await expect(page.getByRole('region', { name: /^Shot \d/ })).toBeVisible();
  await expect(page.getByText('still dripping')).toHaveCount(0);
}
