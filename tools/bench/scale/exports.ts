import { monitorEventLoopDelay } from 'node:perf_hooks';
import { z } from 'zod';
import type { Figure } from '../figure.ts';
import { inOwnProcess } from './ownProcess.ts';

const RESOLUTION_MS = 5;
const SAMPLED_EVERY_MS = 20;
const NS_PER_MS = 1e6;
const BYTES_PER_MB = 1e6;

/** Whose export is read, and where. */
export interface ExportAsked {
  base: string;
  cookie: string;
}

const readSchema = z.object({ firstMs: z.number(), linesPerS: z.number() });
export type ExportRead = z.infer<typeof readSchema>;

/**
 * A part of the export of everything: when it begins, and what it costs the server while it runs. Whoever reads is a process of
 * its own: what a reader keeps and counts is not the server's.
 */
export async function exportFigures({ base, cookie }: ExportAsked): Promise<Figure[]> {
  const beforeB = process.memoryUsage().rss;
  let mostB = beforeB;
  const sampling = setInterval(() => {
    mostB = Math.max(mostB, process.memoryUsage().rss);
  }, SAMPLED_EVERY_MS);
  const delay = monitorEventLoopDelay({ resolution: RESOLUTION_MS });
  try {
    delay.enable();
    const { firstMs, linesPerS } = await inOwnProcess(
      new URL('reader.ts', import.meta.url),
      { base, cookie },
      readSchema,
    );
    delay.disable();
    return [
      { name: 'shots.csv, first byte', value: firstMs, unit: 'ms', aim: 'under 300' },
      { name: 'shots.csv, lines a second', value: linesPerS, unit: '' },
      {
        name: 'shots.csv, memory more than before',
        value: (mostB - beforeB) / BYTES_PER_MB,
        unit: 'MB',
        aim: 'under 150',
      },
      {
        name: 'shots.csv, longest that the event loop was held',
        value: delay.max / NS_PER_MS - RESOLUTION_MS,
        unit: 'ms',
        aim: 'under 50',
      },
    ];
  } finally {
    clearInterval(sampling);
  }
}
