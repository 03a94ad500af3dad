import type { NewEntry, NewFact, NewStep, RecordedFact, RecordedStep } from '@tempera/contract/journal';
import type { Entry } from './outbox.ts';

/** What this device has written and not sent, and nobody refused. */
const waiting = (unsent: readonly Entry[], known: ReadonlySet<string>): NewEntry[] =>
  unsent.filter((entry) => entry.refusal === null && !known.has(entry.fact.id)).map((entry) => entry.fact);

/** What the server has, and what this device has written but not sent; each fact once. Refused ones do not count. */
export function mergeFacts(kept: readonly RecordedFact[], unsent: readonly Entry[]): NewFact[] {
  const known = new Set(kept.map((fact) => fact.id));
  return [...kept, ...waiting(unsent, known).filter((fact) => fact.kind !== 'step')];
}

/** The same for the steps of the machines. */
export function mergeSteps(kept: readonly RecordedStep[], unsent: readonly Entry[]): NewStep[] {
  const known = new Set(kept.map((step) => step.id));
  return [...kept, ...waiting(unsent, known).filter((fact) => fact.kind === 'step')];
}
