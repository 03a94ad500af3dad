import { stepsOf, type StandingFacts } from '../facts/index.ts';

/** One opening from its plan to its signature. */
export interface Morning {
  /** The business day. */
  day: string;
  /** When the run began, when it was signed for, and when the doors were to open, ms since the epoch. */
  fromMs: number;
  readyMs: number;
  opensMs: number;
}

/**
 * Every opening that was signed for, oldest first. A run that is planned anew goes on; one that was begun anew, or given up for
 * another run, never became ready.
 * @param dayOf the business day of a moment
 */
export function morningsOf(facts: StandingFacts, dayOf: (atMs: number) => string): Morning[] {
  const mornings: Morning[] = [];
  let open: Omit<Morning, 'readyMs'> | null = null;
  const steps = [...stepsOf(facts, 'planned'), ...stepsOf(facts, 'signedOff')].toSorted((a, b) =>
    a.at < b.at ? -1 : a.at > b.at ? 1 : 0,
  );
  for (const { at, body } of steps) {
    if (body.step === 'planned') {
      const { run = 'opening', from, opensAt } = body;
      const fromMs = Date.parse(from);
      open = run === 'opening' ? { day: dayOf(fromMs), fromMs, opensMs: Date.parse(opensAt) } : null;
    } else {
      if (open) mornings.push({ ...open, readyMs: Date.parse(at) });
      open = null;
    }
  }
  return mornings;
}
