// Brings node_modules to what package-lock.json says. Plain JavaScript: it runs before anything is installed.
import { spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { existsSync, readFileSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { fileURLToPath } from 'node:url';

const root = fileURLToPath(new URL('..', import.meta.url));
const stampFile = path.join(root, 'node_modules', '.tempera-installed');

/** Installs the locked packages where they are missing or older than the lock. Writes to stderr only. */
export function ensurePackages() {
  const wanted = createHash('sha256')
    .update(readFileSync(path.join(root, 'package-lock.json')))
    .digest('hex');
  if (existsSync(stampFile) && readFileSync(stampFile, 'utf8') === wanted) return;
  process.stderr.write('Installing npm packages (about a minute the first time)\n');
  const done = spawnSync('npm', ['ci', '--no-audit', '--no-fund'], { cwd: root, stdio: ['ignore', 2, 2] });
  if (done.status !== 0) {
    const error = new Error(
      'The npm packages could not be installed. Look at the lines above, then run the command again.',
    );
    error.name = 'SetUpError';
    throw error;
  }
  writeFileSync(stampFile, wanted);
}
