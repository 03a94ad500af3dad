import { standingFacts } from '@tempera/core/facts';
import { seededRandom } from '@tempera/core/numbers';
import { foresee, type Foresight } from '@tempera/core/practice';
import { memoryOf } from './barMemory.ts';
import { viewBench } from './viewBench.ts';
import type { ForeseeJob } from './useForesight.ts';

/** Plays every choice of a bench out, one after another, and tells each as it is done. */
const RUNS = 80;
const SEED = 1;

const tell: (found: Foresight & { setting: number }) => void = (found) => postMessage(found);

addEventListener('message', ({ data }: MessageEvent<ForeseeJob>) => {
  const { grinder, bar, nowMs, choices } = data;
  const facts = standingFacts(data.facts);
  const { state } = viewBench(grinder, facts, bar.house, nowMs, memoryOf(bar, facts));
  for (const choice of choices) {
    tell({ setting: choice.setting, ...foresee(state.adviceCase, choice, RUNS, seededRandom(SEED)) });
  }
});
