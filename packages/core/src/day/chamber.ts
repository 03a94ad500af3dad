import { ofGrinder, stepsOf, type Happening, type StandingFacts } from '../facts/index.ts';

/** Whether it tells of ground coffee that waits, and nothing of how the grinder stands. */
export const isOfChamber = (what: Happening): boolean => what === 'chamberFilled' || what === 'chamberEmptied';

/**
 * Since when ground coffee waits in the chamber of a grinder, ms since the epoch: the oldest that was ground ahead and neither
 * used up, cleaned out nor purged since. Null: none waits.
 */
export function chamberFilledMs(facts: StandingFacts, grinderId: string): number | null {
  const told = stepsOf(facts, 'happened').filter(({ body }) => body.grinderId === grinderId);
  const atOf = ({ at }: { at: string }): number => Date.parse(at);
  const emptiedMs = Math.max(
    -Infinity,
    ...told.filter(({ body }) => body.what === 'chamberEmptied' || body.what === 'cleaned').map(atOf),
    ...ofGrinder(facts, grinderId)
      .filter(({ kind, body }) => kind === 'purge' && !('into' in body && body.into === 'chamber'))
      .map(atOf),
  );
  const filled = told.find((fact) => fact.body.what === 'chamberFilled' && atOf(fact) > emptiedMs);
  return filled ? atOf(filled) : null;
}
