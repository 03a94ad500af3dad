import { spawn, spawnSync } from 'node:child_process';
import { once } from 'node:events';
import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { z } from 'zod';
import { ensureBuilt } from './setup/builder.ts';
import { ensureChromium } from './setup/debian.ts';
import { root } from './setup/paths.ts';
import { say } from './setup/problems.ts';

const MS_PER_S = 1_000;

interface Counts {
  passed: number;
  failed: number;
}

const vitestReport = z.object({ numPassedTests: z.int(), numFailedTests: z.int(), numFailedTestSuites: z.int() });
const playwrightReport = z.object({ stats: z.object({ expected: z.int(), unexpected: z.int(), flaky: z.int() }) });

const commandOf = (program: string): string => path.join(root, 'node_modules/.bin', program);

function verdict(title: string, passed: boolean, began: number): void {
  say(`${title}: ${passed ? 'passed' : 'FAILED'} in ${Math.round((Date.now() - began) / MS_PER_S)} s`);
}

/** Runs one of the project's own programs beside others: its output is shown in one piece. @returns whether it succeeded */
async function runBeside(title: string, program: string, args: string[]): Promise<boolean> {
  const began = Date.now();
  const child = spawn(commandOf(program), args, { cwd: root, stdio: ['ignore', 'pipe', 'pipe'] });
  const output: Buffer[] = [];
  for (const stream of [child.stdout, child.stderr]) stream.on('data', (part: Buffer) => output.push(part));
  const [status] = (await once(child, 'close')) as [number | null];
  say(`\n== ${title}`);
  process.stdout.write(Buffer.concat(output));
  verdict(title, status === 0, began);
  return status === 0;
}

/** The same with its output in view as it comes. @returns whether it succeeded */
function run(title: string, program: string, args: string[], env: NodeJS.ProcessEnv = {}): boolean {
  const began = Date.now();
  say(`\n== ${title}`);
  const done = spawnSync(commandOf(program), args, {
    cwd: root,
    stdio: ['ignore', 'inherit', 'inherit'],
    env: { ...process.env, ...env },
  });
  verdict(title, done.status === 0, began);
  return done.status === 0;
}

/** A report that was never written counts as one failure: a runner that died has not passed. */
function counted<T>(file: string, schema: z.ZodType<T>, count: (report: T) => Counts): Counts {
  try {
    return count(schema.parse(JSON.parse(readFileSync(file, 'utf8'))));
  } catch {
    return { passed: 0, failed: 1 };
  }
}

/** `npm test`: types, lint, unit and API tests, browser tests; ends with one line that counts them all. */
export async function main(): Promise<number> {
  const reports = mkdtempSync(path.join(tmpdir(), 'tempera-reports-'));
  const unitReport = path.join(reports, 'unit.json');
  const browserReport = path.join(reports, 'browser.json');
  ensureChromium();
  const cruised = ['packages', 'apps', 'tools', 'e2e'];
  const checks = await Promise.all([
    runBeside('Types', 'tsc', ['-p', 'tsconfig.json']),
    runBeside('Lint', 'eslint', ['.']),
    runBeside('Import rules', 'depcruise', [...cruised, '--config', '.dependency-cruiser.cjs']),
    runBeside('Rooms one way', 'depcruise', ['apps', '--config', '.dependency-cruiser-rooms.cjs']),
    runBeside('Unused code', 'knip', []),
  ]);
  // Some tests start the server as it is run for real.
  await ensureBuilt();
  checks.push(
    run('Unit and API tests', 'vitest', [
      'run',
      '--reporter=default',
      '--reporter=json',
      `--outputFile.json=${unitReport}`,
    ]),
  );
  checks.push(
    run('Browser tests', 'playwright', ['test'], {
      NODE_OPTIONS: '--import tsx',
      PLAYWRIGHT_JSON_OUTPUT_NAME: browserReport,
    }),
  );
  const unit = counted(unitReport, vitestReport, (report) => ({
    passed: report.numPassedTests,
    failed: Math.max(report.numFailedTests, report.numFailedTestSuites),
  }));
  const browser = counted(browserReport, playwrightReport, ({ stats }) => ({
    passed: stats.expected,
    failed: stats.unexpected + stats.flaky,
  }));
  rmSync(reports, { recursive: true, force: true });
  const failed = unit.failed + browser.failed;
  process.stdout.write(`\ntests: ${unit.passed + browser.passed} passed, ${failed} failed\n`);
  return failed === 0 && checks.every(Boolean) ? 0 : 1;
}
