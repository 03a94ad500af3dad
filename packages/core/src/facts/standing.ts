import type { AnyFact, FactKind, FactOf } from './fact.ts';
import type { StepBody, StepFact, UndoneAim } from './stepFact.ts';

/** Anything that was written down. */
export type Entry = AnyFact | StepFact;
/** A fact that stands, as it now reads. */
export type StandingFact = FactOf<Exclude<FactKind, 'correction'>> | StepFact;

declare const standing: unique symbol;
/**
 * Everything that stands, oldest first: corrections folded into what they correct, what was withdrawn or taken back left
 * out; of the taking back nothing stays either, unless it undid a change of today's aim. Only `standingFacts` makes one from entries, and only the functions below a part of one, so whoever is given it
 * need not ask about order or corrections. The brand lives in core: what crosses a wire or goes to a worker is entries.
 */
export type StandingFacts = readonly StandingFact[] & { readonly [standing]: true };

interface Dated {
  entry: Entry;
  atMs: number;
}

/** Oldest first: by when it happened, then by id (UUIDv7 ids of one device rise with time). */
export const standingOrder = (a: Pick<Entry, 'at' | 'id'>, b: Pick<Entry, 'at' | 'id'>): number =>
  Date.parse(a.at) - Date.parse(b.at) || (a.id < b.id ? -1 : a.id > b.id ? 1 : 0);

/** The same, with every moment read once. */
function inOrder(entries: readonly Entry[]): Entry[] {
  const dated = entries.map((entry): Dated => ({ entry, atMs: Date.parse(entry.at) }));
  dated.sort((a, b) => a.atMs - b.atMs || (a.entry.id < b.entry.id ? -1 : a.entry.id > b.entry.id ? 1 : 0));
  return dated.map(({ entry }) => entry);
}

/**
 * The one ordered view of what stands, made once per set of facts.
 * A correction reaches its target whatever either clock said; of several the latest wins. A correction or a taking back that
 * points nowhere is ignored. The same entry twice counts once.
 * @param entries in any order
 */
export function standingFacts(entries: readonly Entry[]): StandingFacts {
  const corrections = new Map<string, FactOf<'correction'>[]>();
  const takenBack = new Set<string>();
  const aims = new Map<string, UndoneAim>();
  const ordered = inOrder(entries);
  for (const entry of ordered) {
    if (entry.kind === 'correction') {
      corrections.set(entry.body.factId, [...(corrections.get(entry.body.factId) ?? []), entry]);
    } else if (entry.kind === 'step' && entry.body.step === 'takenBack' && entry.body.takesBack !== null) {
      takenBack.add(entry.body.takesBack);
    } else if (entry.kind === 'step' && changesAim(entry.body)) {
      aims.set(entry.id, { grinderId: entry.body.grinderId, atMs: Date.parse(entry.at) });
    }
  }
  const seen = new Set<string>();
  const result: StandingFact[] = [];
  for (const entry of ordered) {
    if (entry.kind === 'correction' || seen.has(entry.id)) continue;
    seen.add(entry.id);
    if (entry.kind === 'step') {
      if (entry.body.step === 'takenBack') result.push(...undoing(entry, aims));
      else if (!takenBack.has(entry.id)) result.push(entry);
      continue;
    }
    const own = corrections.get(entry.id) ?? [];
    if (!isWithdrawn(own)) result.push(own.reduce(corrected, entry));
  }
  return result as unknown as StandingFacts;
}

const changesAim = (body: StepBody): body is Extract<StepBody, { step: 'tasteSettled' | 'aimKept' }> =>
  body.step === 'aimKept' || (body.step === 'tasteSettled' && body.change !== null && body.change.lever !== 'grind');

/** A taking back that undid a change of today's aim, with what it undid; nothing where it was of something else. */
function undoing(fact: StepFact, aims: ReadonlyMap<string, UndoneAim>): StepFact[] {
  const { body } = fact;
  const undid = body.step === 'takenBack' && body.takesBack !== null ? aims.get(body.takesBack) : undefined;
  return body.step === 'takenBack' && undid ? [{ ...fact, body: { ...body, undid } }] : [];
}

/** Whether the last word on a fact is that it did not happen. @param corrections of one fact, oldest first */
export function isWithdrawn(corrections: readonly Pick<FactOf<'correction'>, 'body'>[]): boolean {
  return corrections.at(-1)?.body.withdrawn ?? false;
}

function corrected(fact: StandingFact, { body }: FactOf<'correction'>): StandingFact {
  return fact.kind === 'shot' && body.shot ? { ...fact, body: { ...fact.body, ...body.shot } } : fact;
}

/** Those of which it is true; a part of what stands is in order and stands as well. */
export function factsWhere(facts: StandingFacts, is: (fact: StandingFact) => boolean): StandingFacts {
  return facts.filter(is) as unknown as StandingFacts;
}

/** A stretch of them, by place: from `from`, up to but without `to`. */
export const factsBetween = (facts: StandingFacts, from: number, to: number): StandingFacts =>
  facts.slice(from, to) as unknown as StandingFacts;

/** What happened at one grinder; steps of the bar are not among it. */
export const ofGrinder = (facts: StandingFacts, grinderId: string): StandingFacts =>
  factsWhere(facts, (fact) => fact.grinderId === grinderId);

/** What happened at or after a moment, ms since the epoch. */
export const factsSince = (facts: StandingFacts, fromMs: number): StandingFacts =>
  factsWhere(facts, ({ at }) => Date.parse(at) >= fromMs);

/** What came after one of them; all where it is not among them. */
export function factsAfter(facts: StandingFacts, fact: { id: string } | null): StandingFacts {
  const at = fact === null ? -1 : facts.findIndex(({ id }) => id === fact.id);
  return facts.slice(at + 1) as unknown as StandingFacts;
}

/** The facts of one kind. */
export function ofKind<K extends Exclude<FactKind, 'correction'>>(facts: StandingFacts, kind: K): FactOf<K>[] {
  return facts.filter((fact): fact is FactOf<K> & StandingFact => fact.kind === kind);
}

/** The newest fact of one kind; null where there is none. */
export function lastOfKind<K extends Exclude<FactKind, 'correction'>>(facts: StandingFacts, kind: K): FactOf<K> | null {
  return (facts.findLast((fact) => fact.kind === kind) as FactOf<K> | undefined) ?? null;
}

/** The steps of the bar's own, or those of one kind. */
export function stepsOf(facts: StandingFacts): StepFact[];
export function stepsOf<K extends StepBody['step']>(
  facts: StandingFacts,
  step: K,
): StepFact<Extract<StepBody, { step: K }>>[];
export function stepsOf(facts: StandingFacts, step?: StepBody['step']): StepFact[] {
  return facts.filter(
    (fact): fact is StepFact => fact.kind === 'step' && (step === undefined || fact.body.step === step),
  );
}
