import {
  stepsOf,
  type StandingFacts,
  type StepFact,
  type TrialBeganStep,
  type TrialTastedStep,
} from '../facts/index.ts';
import type { TrialPlan } from './trialPlan.ts';

/** A trial as its facts tell it. */
export interface Trial {
  began: StepFact<TrialBeganStep>;
  plan: TrialPlan;
  /** The pairs that were tasted, oldest first. */
  tasted: StepFact<TrialTastedStep>[];
}

/** The newest trial of a coffee that stands; null: none was begun. */
export function trialOf(facts: StandingFacts, coffeeId: string): Trial | null {
  const began = stepsOf(facts, 'trialBegan').findLast(({ body }) => body.coffeeId === coffeeId);
  if (!began) return null;
  const { start, axes, purgeG, trialId } = began.body;
  return {
    began,
    plan: { start, axes, purgeG },
    tasted: stepsOf(facts, 'trialTasted').filter(({ body }) => body.trialId === trialId),
  };
}
