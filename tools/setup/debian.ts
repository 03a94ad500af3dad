import { spawnSync } from 'node:child_process';
import { existsSync } from 'node:fs';
import { say, SetUpError } from './problems.ts';

const isRoot = (): boolean => process.getuid?.() === 0;

/**
 * Installs a Debian package with root's rights.
 * @throws SetUpError naming the package where this user may not install, or apt could not.
 */
export function installPackage(name: string): void {
  if (!isRoot() || !existsSync('/usr/bin/apt-get')) {
    throw new SetUpError(`Tempera needs the package ${name}. Install it with: sudo apt-get install ${name}`);
  }
  say(`Installing Debian's ${name}`);
  const env = { ...process.env, DEBIAN_FRONTEND: 'noninteractive' };
  const apt = (args: string[]): boolean =>
    spawnSync('apt-get', ['-qq', ...args], { env, stdio: ['ignore', 'ignore', 2] }).status === 0;
  // Package lists on a fresh machine are empty or old, but an update may fail on one stray source and still be enough.
  apt(['update']);
  if (!apt(['install', '-y', '--no-install-recommends', name])) {
    throw new SetUpError(`apt-get could not install ${name}. Look at the lines above, then run the command again.`);
  }
}

const shellPath = '/usr/bin/chromium-headless-shell';
const browserPath = '/usr/bin/chromium';

/**
 * Path of Debian's Chromium without a window, which does the same work with a quarter less of the machine than the whole
 * browser; installed where it is missing. Who may not install gets the whole browser, where there is one.
 */
export function ensureChromium(): string {
  if (process.env.CHROMIUM_PATH !== undefined) return process.env.CHROMIUM_PATH;
  if (existsSync(shellPath)) return shellPath;
  if (!isRoot() && existsSync(browserPath)) return browserPath;
  installPackage('chromium-headless-shell');
  return shellPath;
}
