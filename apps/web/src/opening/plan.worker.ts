import type { SolveMip } from '@tempera/core/opening';
import loadHighs from 'highs';
import wasmUrl from 'highs/runtime?url';
import { solverOf, type HighsLike } from './highsSolver.ts';
import { planFor, type PlanFound, type PlanJob } from './planJob.ts';

/** Plans the morning beside the page: at once by hand, and then, where something is left to prove, with the solver. */

const solver: Promise<SolveMip | null> = loadHighs({ locateFile: () => wasmUrl })
  .then((highs) => solverOf(highs as unknown as HighsLike))
  // Without the solver the plan by hand stands, with its gap.
  .catch(() => null);

const tell: (found: PlanFound) => void = (found) => postMessage(found);
let newest = '';

addEventListener('message', ({ data: job }: MessageEvent<PlanJob>) => {
  newest = job.key;
  const byHand = planFor(job, null);
  tell(byHand);
  if (byHand.plan.gap === 0) return;
  void solver.then((solve) => {
    // A job that came meanwhile is another morning.
    if (solve === null || newest !== job.key) return;
    const proven = planFor(job, solve);
    tell({ ...proven, tookMs: byHand.tookMs + proven.tookMs });
  });
});
