import type { MorningTold } from '@tempera/contract/day';
import { median, MS_PER_MINUTE } from '@tempera/core/numbers';
import { seconds } from '../kernel/format.ts';

/** From the beginning of a run to its signature, min. */
export const minutesOf = ({ fromMs, readyMs }: MorningTold): number => (readyMs - fromMs) / MS_PER_MINUTE;

/** How long before the doors the bar was ready, min; negative: after. */
export const earlyMin = ({ readyMs, opensMs }: MorningTold): number => (opensMs - readyMs) / MS_PER_MINUTE;

/** "Ready after 94 min on the usual morning, 38 of 40 times before the doors." */
export function morningsWord(mornings: readonly MorningTold[]): string {
  const middle = Math.round(median(mornings.map(minutesOf)));
  const inTime = mornings.filter((morning) => earlyMin(morning) >= 0).length;
  const times = mornings.length === 1 ? '1 morning' : `${mornings.length} mornings`;
  return `Ready after ${middle} min on the usual morning, before the doors on ${inTime} of ${times}.`;
}

/** "12 min before", "3 min late": against the doors. */
export function earlyWord(morning: MorningTold): string {
  const min = Math.round(earlyMin(morning));
  return min >= 0 ? `${min} min before` : `${-min} min late`;
}

/** "0.9 s faster than the others on a shot of 27 s, give or take 0.4 s." What lies within its own doubt is no difference. */
export function groupWord({ mean, sd }: { mean: number; sd: number }, middleS: number): string {
  const offS = Math.abs(Math.expm1(mean) * middleS);
  const doubt = `give or take ${seconds(sd * middleS)}`;
  if (Math.abs(mean) < sd) return `as the others, ${doubt}`;
  return `${seconds(offS)} ${mean < 0 ? 'faster' : 'slower'} than the others on a shot of ${Math.round(middleS)} s, ${doubt}`;
}
