import { seededRandom } from '@tempera/core/numbers';
import { benchState, rememberedFor } from '@tempera/core/calibration';
import { foresee, type Foresight } from '@tempera/core/practice';
import type { ForeseeJob } from './useForesight.ts';

/** Plays every choice of a bench out, one after another, and tells each as it is done. */
const RUNS = 80;
const SEED = 1;

const tell: (found: Foresight & { setting: number }) => void = (found) => postMessage(found);

addEventListener('message', ({ data }: MessageEvent<ForeseeJob>) => {
  const { grinder, grinders, facts, memoryFacts, house, nowMs, choices } = data;
  const remembered = rememberedFor(grinder.id, grinders, memoryFacts);
  const { adviceCase } = benchState(facts, grinder, grinder.recipe, house, nowMs, remembered);
  for (const choice of choices) {
    tell({ setting: choice.setting, ...foresee(adviceCase, choice, RUNS, seededRandom(SEED)) });
  }
});
