import type { NewFact, RecordedFact } from '@tempera/contract/journal';
import type { Entry } from './outbox.ts';

/** What the server has, and what this device has written but not sent; each fact once. Refused ones do not count. */
export function mergeFacts(kept: readonly RecordedFact[], unsent: readonly Entry[]): NewFact[] {
  const known = new Set(kept.map((fact) => fact.id));
  return [
    ...kept,
    ...unsent.filter((entry) => entry.refusal === null && !known.has(entry.fact.id)).map((entry) => entry.fact),
  ];
}
