import type { AnyFact } from './fact.ts';

/** Oldest first: by when it happened, then by id (UUIDv7 ids of one device rise with time). */
export function inOrder<T extends { at: string; id: string }>(facts: readonly T[]): T[] {
  return facts.toSorted((a, b) => Date.parse(a.at) - Date.parse(b.at) || (a.id < b.id ? -1 : a.id > b.id ? 1 : 0));
}

/**
 * The facts as they now stand: corrections folded into what they correct, withdrawn ones left out, oldest first.
 * Later corrections win; a correction that points nowhere is ignored.
 */
export function asCorrected<T extends AnyFact>(facts: readonly T[]): Exclude<T, { kind: 'correction' }>[] {
  const standing = new Map<string, T>();
  const withdrawn = new Map<string, boolean>();
  for (const fact of inOrder(facts)) {
    if (fact.kind !== 'correction') {
      standing.set(fact.id, fact);
      continue;
    }
    const target = standing.get(fact.body.factId);
    if (!target) continue;
    withdrawn.set(target.id, fact.body.withdrawn);
    if (target.kind === 'shot' && fact.body.shot) {
      standing.set(target.id, { ...target, body: { ...target.body, ...fact.body.shot } });
    }
  }
  return [...standing.values()].filter((fact) => withdrawn.get(fact.id) !== true) as Exclude<
    T,
    { kind: 'correction' }
  >[];
}
