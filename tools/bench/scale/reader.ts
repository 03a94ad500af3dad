import { get } from 'node:http';
import { MS_PER_SECOND } from '@tempera/core/numbers';
import type { ExportRead, ExportAsked } from './exports.ts';

/** A process that reads the export of everything as a spreadsheet's browser would, and tells how quickly it came. */

/** Nobody waits here for all of it: what it costs does not change on the way. */
const LINES_READ = 200_000;
const NEW_LINE = 10;

const linesIn = (piece: Buffer): number => piece.reduce((lines, byte) => lines + (byte === NEW_LINE ? 1 : 0), 0);

function read({ base, cookie }: ExportAsked): Promise<ExportRead> {
  const began = performance.now();
  return new Promise((resolve, reject) => {
    get(`${base}/journal/shots.csv`, { headers: { cookie } }, (answer) => {
      let firstMs: number | null = null;
      let lines = 0;
      const told = (): void =>
        resolve({ firstMs: firstMs ?? 0, linesPerS: (lines * MS_PER_SECOND) / (performance.now() - began) });
      answer.on('data', (piece: Buffer) => {
        firstMs ??= performance.now() - began;
        lines += linesIn(piece);
        if (lines > LINES_READ) answer.destroy();
      });
      answer.once('close', told);
    }).once('error', reject);
  });
}

process.once('message', (asked) => {
  void read(asked as ExportAsked).then((told) => process.send?.(told, () => process.disconnect()));
});
