import { createHash } from 'node:crypto';
import { existsSync, readdirSync, readFileSync, statSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { promisify } from 'node:util';
import { brotliCompress, constants, gzip } from 'node:zlib';
import { build as bundle } from 'esbuild';
import { build as buildWeb } from 'vite';
import { root, serverDist, webDist } from './paths.ts';
import { say } from './problems.ts';

const stampFile = path.join(serverDist, '.stamp');
/** As much of a source's hash as tells one build from another. */
const BUILD_LETTERS = 16;
/** Below this, compression saves nothing. */
const MIN_COMPRESS_BYTES = 1_024;

/** Hash over everything that goes into a build. */
function sourceHash(): string {
  const hash = createHash('sha256');
  const folders = ['packages', 'apps'];
  const files = folders
    .flatMap((folder) => listFiles(path.join(root, folder)))
    .concat(path.join(root, 'package-lock.json'))
    .sort();
  for (const file of files) hash.update(file).update(readFileSync(file));
  return hash.digest('hex');
}

function listFiles(folder: string): string[] {
  return readdirSync(folder, { withFileTypes: true }).flatMap((entry) => {
    const full = path.join(folder, entry.name);
    if (entry.isDirectory()) return ['dist', 'node_modules'].includes(entry.name) ? [] : listFiles(full);
    return [full];
  });
}

/** Builds server and web app where their sources have changed since the last build. */
export async function ensureBuilt(): Promise<void> {
  const wanted = sourceHash();
  if (
    existsSync(stampFile) &&
    readFileSync(stampFile, 'utf8') === wanted &&
    existsSync(path.join(webDist, 'index.html'))
  )
    return;
  say('Building');
  // For production, whatever this process is for (a test runner's build would carry the developer's helpers); and what it starts
  // later is as it was.
  const mode = process.env.NODE_ENV;
  process.env.NODE_ENV = 'production';
  process.env.TEMPERA_BUILD = wanted.slice(0, BUILD_LETTERS);
  await Promise.all([buildServer(), buildWebApp()]);
  if (mode === undefined) delete process.env.NODE_ENV;
  else process.env.NODE_ENV = mode;
  writeFileSync(stampFile, wanted);
}

async function buildServer(): Promise<void> {
  const manifest = (file: string): string[] =>
    Object.keys(
      (JSON.parse(readFileSync(path.join(root, file), 'utf8')) as { dependencies?: Record<string, string> })
        .dependencies ?? {},
    );
  const external = ['apps/server/package.json', 'packages/core/package.json', 'packages/contract/package.json']
    .flatMap(manifest)
    .filter((name) => !name.startsWith('@tempera/'));
  await bundle({
    entryPoints: ['main', 'app/server', 'kernel/logging', 'practice/index'].map((name) =>
      path.join(root, 'apps/server/src', `${name}.ts`),
    ),
    outdir: serverDist,
    outbase: path.join(root, 'apps/server/src'),
    entryNames: '[name]',
    bundle: true,
    splitting: true,
    format: 'esm',
    platform: 'node',
    target: 'node20',
    sourcemap: true,
    external,
    logLevel: 'warning',
  });
}

async function buildWebApp(): Promise<void> {
  await buildWeb({ root: path.join(root, 'apps/web'), mode: 'production', logLevel: 'warn' });
  const toGzip = promisify(gzip);
  const toBrotli = promisify(brotliCompress);
  const files = listFiles(webDist).filter(
    (file) => /\.(js|css|html|svg|json)$/.test(file) && statSync(file).size > MIN_COMPRESS_BYTES,
  );
  await Promise.all(
    files.map(async (file) => {
      const bytes = readFileSync(file);
      writeFileSync(`${file}.gz`, await toGzip(bytes, { level: 9 }));
      writeFileSync(`${file}.br`, await toBrotli(bytes, { params: { [constants.BROTLI_PARAM_QUALITY]: 9 } }));
    }),
  );
}
