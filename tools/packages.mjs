// Brings node_modules to what package-lock.json says. Plain JavaScript: it runs before anything is installed.
import { spawnSync } from 'node:child_process';
import { existsSync, readFileSync } from 'node:fs';
import path from 'node:path';
import { fileURLToPath } from 'node:url';

const root = fileURLToPath(new URL('..', import.meta.url));

/** @returns {Record<string, { version?: string, optional?: boolean, link?: boolean }>} */
const packagesIn = (file) => JSON.parse(readFileSync(path.join(root, file), 'utf8')).packages;

/** Whether what npm wrote down of its last install is what the lock asks for, whoever ran it. */
function isInstalled() {
  const installed = 'node_modules/.package-lock.json';
  if (!existsSync(path.join(root, installed))) return false;
  const [there, wanted] = [packagesIn(installed), packagesIn('package-lock.json')];
  return Object.entries(wanted).every(
    ([name, { version, optional }]) =>
      name === '' || (there[name] ? there[name].version === version : optional === true),
  );
}

/** Installs the locked packages where they are missing or other than the lock says. Writes to stderr only. */
export function ensurePackages() {
  if (isInstalled()) return;
  process.stderr.write('Installing npm packages (about a minute the first time)\n');
  const done = spawnSync('npm', ['ci', '--no-audit', '--no-fund'], { cwd: root, stdio: ['ignore', 2, 2] });
  if (done.status !== 0) {
    const error = new Error(
      'The npm packages could not be installed. Look at the lines above, then run the command again.',
    );
    error.name = 'SetUpError';
    throw error;
  }
}
