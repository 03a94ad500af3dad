import { trialState, type TrialPair, type TrialPlan, type TrialState } from '@tempera/core/taste';

/** Weighs thousands of ways that a coffee and a palate may be, beside the page. */
export interface TrialJob {
  key: string;
  plan: TrialPlan;
  pairs: readonly TrialPair[];
}
export interface TrialAnswer {
  key: string;
  state: TrialState;
}

addEventListener('message', ({ data: { key, plan, pairs } }: MessageEvent<TrialJob>) => {
  const answer: TrialAnswer = { key, state: trialState(plan, pairs) };
  postMessage(answer);
});
