import { existsSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { z } from 'zod';
import { SetUpError } from './problems.ts';

const schema = z.object({ pid: z.int().positive(), address: z.string() });

const fileIn = (folder: string): string => path.join(folder, 'run.json');

/** Whether that process is alive and one of ours, not a newcomer with a recycled number. */
function isOurs(pid: number): boolean {
  try {
    return readFileSync(`/proc/${pid}/cmdline`, 'utf8').includes('run.mjs');
  } catch {
    return false;
  }
}

/** @throws SetUpError when another run is using this data folder. */
export function refuseSecondRun(folder: string): void {
  if (!existsSync(fileIn(folder))) return;
  const parsed = schema.safeParse(safeJson(readFileSync(fileIn(folder), 'utf8')));
  if (!parsed.success || parsed.data.pid === process.pid || !isOurs(parsed.data.pid)) return;
  throw new SetUpError(
    `Tempera already runs at ${parsed.data.address}. Use it there, or stop it first with Ctrl-C (process ${parsed.data.pid}).`,
  );
}

function safeJson(text: string): unknown {
  try {
    return JSON.parse(text);
  } catch {
    return null;
  }
}

export function noteRun(folder: string, address: string): void {
  writeFileSync(fileIn(folder), JSON.stringify({ pid: process.pid, address }));
}

export function forgetRun(folder: string): void {
  rmSync(fileIn(folder), { force: true });
}
