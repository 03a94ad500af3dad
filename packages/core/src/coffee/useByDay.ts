import type { StandingFacts } from '../facts/index.ts';
import { gramsOf, usesOf, type Use } from './gramsUsed.ts';
import type { DayGrams } from './throughput.ts';

/** One day of one grinder: what calibrating took, and what went into cups. */
export interface DayUse {
  day: string;
  grinderId: string;
  calibrationG: number;
  /** Null when the bags do not tell what went through. */
  servedG: number | null;
}

/** Grams that calibrating took, by business day and grinder. @param dayOf the business day of a moment */
export function calibrationByDay(facts: StandingFacts, dayOf: (atMs: number) => string): DayGrams[] {
  const lots = new Map<string, Use[]>();
  for (const use of usesOf(facts)) {
    const key = `${dayOf(use.atMs)} ${use.grinderId}`;
    const lot = lots.get(key);
    if (lot) lot.push(use);
    else lots.set(key, [use]);
  }
  return [...lots].map(([key, uses]) => {
    const [day = '', grinderId = ''] = key.split(' ');
    return { day, grinderId, grams: gramsOf(uses).totalG };
  });
}

/** Calibration against served: what went through the hopper less what calibrating took. Newest day first. */
export function useByDay(calibration: readonly DayGrams[], through: readonly DayGrams[]): DayUse[] {
  const keys = new Map<string, { day: string; grinderId: string }>();
  for (const { day, grinderId } of [...calibration, ...through]) keys.set(`${day} ${grinderId}`, { day, grinderId });
  const gramsAt = (list: readonly DayGrams[], day: string, grinderId: string): number | null =>
    list.find((entry) => entry.day === day && entry.grinderId === grinderId)?.grams ?? null;
  return [...keys.values()]
    .map(({ day, grinderId }) => {
      const calibrationG = gramsAt(calibration, day, grinderId) ?? 0;
      const throughG = gramsAt(through, day, grinderId);
      return {
        day,
        grinderId,
        calibrationG,
        servedG: throughG === null ? null : Math.max(0, throughG - calibrationG),
      };
    })
    .toSorted((a, b) => b.day.localeCompare(a.day) || a.grinderId.localeCompare(b.grinderId));
}
