import { readFileSync } from 'node:fs';
import path from 'node:path';
import { gzipSync } from 'node:zlib';
import { webDist } from '../setup/paths.ts';
import type { Figure } from './figure.ts';

const KB = 1_000;
/** What stands on the screen first: the frame, and the home in it. */
const FIRST = ['index.html', 'src/bar/HomePage.tsx'];

/** A piece of built code, as the bundler lists it. */
interface Piece {
  file: string;
  src?: string;
  css?: string[];
  imports?: string[];
}

type Manifest = Record<string, Piece>;

/** Everything that a piece needs before it runs, itself included. */
function neededBy(manifest: Manifest, keys: readonly string[]): Set<string> {
  const needed = new Set<string>();
  const add = (key: string): void => {
    if (needed.has(key)) return;
    needed.add(key);
    for (const imported of manifest[key]?.imports ?? []) add(imported);
  };
  keys.forEach(add);
  return needed;
}

const gzippedKb = (files: Iterable<string>): number =>
  [...new Set(files)].reduce(
    (total, file) => total + gzipSync(readFileSync(path.join(webDist, file)), { level: 9 }).length,
    0,
  ) / KB;

/** Bytes that the first view needs, gzipped, and what each further page adds to it. */
export function measureBundle(): Figure[] {
  const manifest = JSON.parse(readFileSync(path.join(webDist, '.vite/manifest.json'), 'utf8')) as Manifest;
  const first = neededBy(manifest, FIRST);
  const filesOf = (keys: Iterable<string>): string[] => [...keys].flatMap((key) => manifest[key]?.file ?? []);
  const stylesOf = (keys: Iterable<string>): string[] => [...keys].flatMap((key) => manifest[key]?.css ?? []);
  const pages = Object.keys(manifest)
    .filter((key) => /^src\/\w+\/\w+Pages?\.tsx$/.test(key) && !first.has(key))
    .toSorted();
  return [
    {
      name: 'JavaScript before the first view, gzipped',
      value: gzippedKb(filesOf(first)),
      unit: 'kB',
      aim: 'under 235',
    },
    { name: 'CSS before the first view, gzipped', value: gzippedKb(stylesOf(first)), unit: 'kB', aim: 'under 45' },
    ...pages.map((page): Figure => {
      const more = [...neededBy(manifest, [page])].filter((key) => !first.has(key));
      const name = page.replace(/^src\//, '').replace(/\.tsx$/, '');
      return { name: `${name} adds, in ${more.length} pieces`, value: gzippedKb(filesOf(more)), unit: 'kB' };
    }),
  ];
}
