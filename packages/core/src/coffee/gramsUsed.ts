import type { PurgeBody, StandingFacts } from '../facts/index.ts';
import { MS_PER_DAY } from '../numbers/index.ts';

/** Where ground coffee went. Put back into a chamber it is not used; all others are. */
export type UseCause =
  /** Into the basket of a shot. */
  | 'poured'
  /** To clear the setting before. */
  | 'purged'
  /** Weighed and not pulled, taken out of a dose, stale from the night, or ground only to find a dose time. */
  | 'thrownAway'
  /** Kept for the kitchen. */
  | 'kitchen'
  /** New burrs run in. */
  | 'burrs'
  | 'putBack';

/** One lot of ground coffee. */
export interface Use {
  atMs: number;
  grinderId: string;
  cause: UseCause;
  grams: number;
}

/** A dose that waits for longer is told as poured: nothing that comes so late says otherwise. */
const WAITS_MS = MS_PER_DAY;

/**
 * Every gram that was ground, once, with where it went. A weighed dose and the shot that it was pulled for are one lot; a
 * dose that another took the place of was thrown away; one that still waits is on its way into a cup. Only facts tell:
 * cups that nobody wrote down are not among it.
 */
export function usesOf(facts: StandingFacts): Use[] {
  const told = usesInTurn();
  return [...told.take(facts), ...told.rest()];
}

/**
 * The same, part by part of a long history in its order: what a part settles is told, in order; what may still change waits.
 */
export function usesInTurn(): { take: (facts: StandingFacts) => Use[]; rest: () => Use[] } {
  let queue: Use[] = [];
  const waiting = new Map<string, Use>();
  return {
    take: (facts) => {
      hear(facts, queue, waiting);
      const nowMs = queue.at(-1)?.atMs ?? 0;
      const open = new Set([...waiting.values()].filter(({ atMs }) => nowMs - atMs < WAITS_MS));
      const first = queue.findIndex((use) => open.has(use));
      const settled = first === -1 ? queue : queue.slice(0, first);
      queue = queue.slice(settled.length);
      return settled;
    },
    rest: () => queue.splice(0),
  };
}

/** Adds what facts tell to `uses`; `waiting`: the last dose of each grinder that was not pulled yet. */
function hear(facts: StandingFacts, uses: Use[], waiting: Map<string, Use>): void {
  for (const fact of facts) {
    const atMs = Date.parse(fact.at);
    if (fact.kind === 'step') {
      if (fact.body.step !== 'doseTime') continue;
      const { grinderId, discardedG, dosesG } = fact.body;
      for (const grams of [discardedG, ...dosesG]) uses.push({ atMs, grinderId, cause: 'thrownAway', grams });
      continue;
    }
    const { grinderId } = fact;
    if (fact.kind === 'dose') {
      const before = waiting.get(grinderId);
      if (before) before.cause = 'thrownAway';
      const { doseG, firstPartG = doseG } = fact.body;
      if (firstPartG > doseG) uses.push({ atMs, grinderId, cause: 'thrownAway', grams: firstPartG - doseG });
      const dose: Use = { atMs, grinderId, cause: 'poured', grams: doseG };
      waiting.set(grinderId, dose);
      uses.push(dose);
    }
    if (fact.kind === 'shot') {
      if (!waiting.delete(grinderId)) uses.push({ atMs, grinderId, cause: 'poured', grams: fact.body.doseG });
    }
    if (fact.kind === 'purge') {
      const { purgeG, into, why } = fact.body;
      uses.push({ atMs, grinderId, cause: causeOf(into, why), grams: purgeG });
    }
  }
}

/** Where it went says more than why it was ground. */
function causeOf(into: PurgeBody['into'], why: PurgeBody['why']): UseCause {
  if (into === 'chamber') return 'putBack';
  if (into === 'kitchen') return 'kitchen';
  if (why === 'burrs') return 'burrs';
  return why === 'stale' ? 'thrownAway' : 'purged';
}

export interface GramsUsed {
  /** All but what was put back. */
  totalG: number;
  byCause: Readonly<Record<UseCause, number>>;
}

/**
 * Grams used, in all and by cause.
 * @param facts all that is known: whether a dose was pulled may be told by a fact before or after the span
 * @param span which part of it counts; `fromMs` ms since the epoch
 */
export function gramsUsed(facts: StandingFacts, span: { fromMs?: number; grinderId?: string } = {}): GramsUsed {
  return gramsOf(
    usesOf(facts).filter(
      ({ atMs, grinderId }) =>
        atMs >= (span.fromMs ?? -Infinity) && (span.grinderId === undefined || grinderId === span.grinderId),
    ),
  );
}

/** The sum of some lots, in all and by cause. */
export function gramsOf(uses: readonly Use[]): GramsUsed {
  const byCause: Record<UseCause, number> = { poured: 0, purged: 0, thrownAway: 0, kitchen: 0, burrs: 0, putBack: 0 };
  for (const { cause, grams } of uses) byCause[cause] += grams;
  const { putBack, ...used } = byCause;
  return { totalG: Object.values(used).reduce((sum, grams) => sum + grams, 0), byCause };
}
