import { asCorrected, type AnyFact } from '../facts/index.ts';
import type { DayGrams } from './throughput.ts';

/** One day of one grinder: what calibrating took, and what went into cups. */
export interface DayUse {
  day: string;
  grinderId: string;
  calibrationG: number;
  /** Null when the bags do not tell what went through. */
  servedG: number | null;
}

/**
 * Grams that calibrating took, by day and grinder: purges, weighed doses, and shots that were entered without a dose of
 * their own.
 * @param facts in any order, corrections included
 * @param dayOf the business day of a moment
 */
export function calibrationByDay(facts: readonly AnyFact[], dayOf: (atMs: number) => string): DayGrams[] {
  const sums = new Map<string, DayGrams>();
  const weighed = new Map<string, boolean>();
  for (const fact of asCorrected(facts)) {
    const grams = gramsOf(fact, weighed.get(fact.grinderId) ?? false);
    if (fact.kind === 'dose') weighed.set(fact.grinderId, true);
    if (fact.kind === 'shot') weighed.set(fact.grinderId, false);
    if (grams === 0) continue;
    const day = dayOf(Date.parse(fact.at));
    const key = `${day} ${fact.grinderId}`;
    const sum = sums.get(key) ?? { day, grinderId: fact.grinderId, grams: 0 };
    sums.set(key, { ...sum, grams: sum.grams + grams });
  }
  return [...sums.values()];
}

function gramsOf(fact: AnyFact, doseWaits: boolean): number {
  if (fact.kind === 'purge') return fact.body.purgeG;
  if (fact.kind === 'dose') return fact.body.doseG;
  // The dose of a shot was counted when it was weighed.
  return fact.kind === 'shot' && !doseWaits ? fact.body.doseG : 0;
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
