import { MS_PER_SECOND } from '@tempera/core/numbers';
import type { Figure } from './figure.ts';
import { adviceTool } from '../advise.ts';
import { answerLine } from '../lines.ts';

const LINES = 5_000;

/** Advice lines a second, parsed, advised and answered, with four shots each. */
export function measureAdvice(): Figure[] {
  const shot = { setting: 30, doseG: 18, yieldG: 36, firstDropS: 5, purgedG: 20, fault: null };
  const line = JSON.stringify({
    recipe: { doseG: 18, yieldG: 36, timeS: { min: 25, max: 30 } },
    grinder: { stepMarks: 1, finer: 'down', secondsPerMark: 2.5, retentionG: null },
    since: { newBag: false, hours: 14 },
    shots: [22, 24, 26, 26.5].map((timeS) => ({ ...shot, timeS })),
  });
  for (let i = 0; i < LINES / 10; i += 1) answerLine(adviceTool, line);
  const began = performance.now();
  for (let i = 0; i < LINES; i += 1) answerLine(adviceTool, line);
  const perS = (LINES * MS_PER_SECOND) / (performance.now() - began);
  return [{ name: 'advice lines answered', value: perS, unit: 'a second', aim: '1,000 or more' }];
}
