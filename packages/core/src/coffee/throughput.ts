/** A bag that went into a hopper. */
export interface HopperBag {
  grinderId: string;
  atMs: number;
  weightG: number;
}

/** A span of a business day. */
export interface OpenDay {
  day: string;
  fromMs: number;
  toMs: number;
}

export interface DayGrams {
  day: string;
  grinderId: string;
  grams: number;
}

/**
 * Grams that went through each hopper on each day. Nobody weighs what is served; but when the next bag goes in, the one
 * before it has gone through, evenly over the open hours between. The bag that is in now is taken to go at the pace of
 * the last one; a first bag, of which nothing is known, counts for nothing.
 * @param days business days in order, with their open hours
 */
export function throughputByDay(bags: readonly HopperBag[], days: readonly OpenDay[]): DayGrams[] {
  const grinders = [...new Set(bags.map(({ grinderId }) => grinderId))];
  return grinders.flatMap((grinderId) => {
    const own = bags.filter((bag) => bag.grinderId === grinderId).toSorted((a, b) => a.atMs - b.atMs);
    const spans = own.map((bag, i) => ({ ...bag, toMs: own[i + 1]?.atMs ?? null }));
    const perDay = new Map<string, number>();
    let pace = 0;
    for (const { atMs, toMs, weightG } of spans) {
      const until = toMs ?? Infinity;
      const open = days.map(({ day, fromMs, toMs: endMs }) => ({ day, ms: overlap(fromMs, endMs, atMs, until) }));
      const openMs = open.reduce((sum, { ms }) => sum + ms, 0);
      if (openMs === 0) continue;
      if (toMs !== null) pace = weightG / openMs;
      // More than the bag holds cannot have gone through it.
      const rate = Math.min(pace, weightG / openMs);
      for (const { day, ms } of open) if (ms * rate > 0) perDay.set(day, (perDay.get(day) ?? 0) + rate * ms);
    }
    return [...perDay].map(([day, grams]) => ({ day, grinderId, grams }));
  });
}

const overlap = (a: number, b: number, c: number, d: number): number => Math.max(0, Math.min(b, d) - Math.max(a, c));
