import { standingFacts } from '@tempera/core/facts';
import { seededRandom } from '@tempera/core/numbers';
import { rollout, type Rollout } from '@tempera/core/calibration';
import { memoryOf } from '../kernel/barMemory.ts';
import { viewBench } from './viewBench.ts';
import type { RolloutJob } from './useRollouts.ts';

/** Plays every choice of a bench out, one after another, and tells each as it is done. */
const RUNS = 80;
const SEED = 1;

const tell: (found: Rollout & { setting: number }) => void = (found) => postMessage(found);

addEventListener('message', ({ data }: MessageEvent<RolloutJob>) => {
  const { grinder, bar, nowMs, choices } = data;
  const facts = standingFacts(data.facts);
  const { state } = viewBench(grinder, facts, bar, nowMs, memoryOf(bar, facts));
  for (const choice of choices) {
    tell({ setting: choice.setting, ...rollout(state.adviceCase, choice, RUNS, seededRandom(SEED)) });
  }
});
