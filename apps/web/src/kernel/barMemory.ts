import type { Bar } from '@tempera/contract/bar';
import { memoryContextOf } from '@tempera/contract/station';
import {
  emptyMemory,
  updateWithFact,
  updateWithFacts,
  unpackMemory,
  type BarMemory,
  type PackedMemory,
} from '@tempera/core/calibration';
import { factsAfter, factsSince, type StandingFact, type StandingFacts } from '@tempera/core/facts';

type Remembering = Pick<Bar, 'memory' | 'grinders' | 'recipesNamed'>;

interface Folded {
  facts: StandingFacts;
  memory: BarMemory;
  grinders: Bar['grinders'];
}

/** What was folded last onto the memory that a bar was handed out with: a fact that arrives is heard alone. */
const folded = new WeakMap<PackedMemory, Folded>();

/** What the bar has taught by now: the day's starting posterior, and onto it everything since, unsent facts too, in order. */
export function memoryOf(bar: Remembering, facts: StandingFacts): BarMemory {
  const { state, upTo } = bar.memory;
  const since = factsSince(facts, Date.parse(upTo));
  const last = folded.get(state);
  const context = memoryContextOf(bar);
  const goesOn = last !== undefined && last.grinders === bar.grinders && begins(since, last.facts);
  const memory = goesOn
    ? updateWithFacts(last.memory, factsAfter(since, last.facts.at(-1) ?? null), context)
    : updateWithFacts(unpackMemory(state) ?? emptyMemory, since, context);
  folded.set(state, { facts: since, memory, grinders: bar.grinders });
  return memory;
}

/** The same with one more fact that is not written yet: a shot whose last drops still fall. */
export const memoryWith = (memory: BarMemory, bar: Remembering, fact: StandingFact): BarMemory =>
  updateWithFact(memory, fact, memoryContextOf(bar));

/** Whether a list begins with another, fact by fact. */
function begins(facts: StandingFacts, first: StandingFacts): boolean {
  return first.length <= facts.length && first.every((fact, i) => isSame(fact, facts[i]));
}

function isSame(a: StandingFact, b: StandingFact | undefined): boolean {
  if (a === b) return true;
  if (b === undefined || a.id !== b.id || a.at !== b.at) return false;
  // A shot comes with its trace from one place and without it from another; the memory hears none.
  const told = ({ body }: StandingFact): string => JSON.stringify({ ...body, trace: null });
  return told(a) === told(b);
}
