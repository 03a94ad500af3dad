import { isOfOneTap, stepsOf, type StandingFacts, type StepFact, type StepOf } from '../facts/index.ts';

/** What one tap of a taster decided, oldest first: one change, or several that belong together, with how the window goes along. */
export type TasteDecision = StepFact<StepOf<'tasteSettled'>>[];

/** What taste decided at a grinder, "it stays as it is" included, tap by tap. @param fromMs nothing before it, ms since the epoch */
export function tasteDecisions(facts: StandingFacts, grinderId: string, fromMs: number): TasteDecision[] {
  const decisions: TasteDecision[] = [];
  for (const step of stepsOf(facts, 'tasteSettled')) {
    if (step.body.grinderId !== grinderId || Date.parse(step.at) < fromMs) continue;
    const last = decisions.at(-1);
    const before = last?.at(-1);
    if (last && before && isOfOneTap(before, step)) last.push(step);
    else decisions.push([step]);
  }
  return decisions;
}
