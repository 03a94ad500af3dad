import type { Bar } from '@tempera/contract/bar';
import type { NewEntry, RecordedEntry } from '@tempera/contract/journal';
import { houseTimeMs, standingFacts, type StandingFacts } from '@tempera/core/facts';
import type { Entry } from './outbox.ts';

/** What this device has written and nobody refused, by the house's clock. */
const waiting = (unsent: readonly Entry[], known: ReadonlySet<string>): NewEntry[] =>
  unsent.flatMap((entry) => (entry.refusal !== null || known.has(entry.fact.id) ? [] : datedByHouse(entry)));

const datedBefore = new WeakMap<Entry, NewEntry>();

/** A shift that was alone has thousands, and every look at the bar asks for all of them. */
function datedByHouse(entry: Entry): NewEntry {
  const before = datedBefore.get(entry);
  if (before) return before;
  const { fact } = entry;
  const dated = { ...fact, at: new Date(houseTimeMs(Date.parse(fact.at), fact.skewMs, null)).toISOString() };
  datedBefore.set(entry, dated);
  return dated;
}

/** What stands, by what the server has and what this device has written but not sent; refused entries do not count. */
export function standingOf(kept: readonly RecordedEntry[], unsent: readonly Entry[]): StandingFacts {
  return standingFacts([...kept, ...waiting(unsent, new Set(kept.map(({ id }) => id)))]);
}

const made = new WeakMap<Bar, { unsent: readonly Entry[]; facts: StandingFacts }>();

/** What stands of the whole bar; made once for the same bar and the same unsent entries, however many ask. */
export function standingOfBar(bar: Bar, unsent: readonly Entry[]): StandingFacts {
  const known = made.get(bar);
  if (known?.unsent === unsent) return known.facts;
  const facts = standingOf([...bar.facts, ...bar.steps], unsent);
  made.set(bar, { unsent, facts });
  return facts;
}

/** Nothing was written down. */
export const nothingStands = standingFacts([]);
