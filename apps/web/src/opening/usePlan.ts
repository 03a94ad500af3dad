import { useEffect, useEffectEvent, useMemo, useState } from 'react';
import { planFor, type PlanFound, type PlanJob } from './planJob.ts';

/** One worker for as long as the app is open: its solver is loaded once. */
let shared: Worker | null = null;
const worker = (): Worker => (shared ??= new Worker(new URL('./plan.worker.ts', import.meta.url), { type: 'module' }));

/** The newest plan, of whichever run: whoever leaves the page and comes back finds the plan in hand. */
let inHand: PlanFound | null = null;

/** The plan of a run, made anew whenever the job's key changes; until then the plan before it stands. */
export function usePlan(job: PlanJob | null): PlanFound | null {
  const [found, setFound] = useState<PlanFound | null>(inHand);
  const key = job?.key ?? null;
  const hasWorker = typeof Worker !== 'undefined';
  const ask = useEffectEvent(() => {
    if (job) worker().postMessage(job);
  });
  useEffect(() => {
    if (key === null || !hasWorker) return undefined;
    const onFound = ({ data }: MessageEvent<PlanFound>): void => {
      if (data.key !== key) return;
      performance.measure('plan', { start: performance.now() - data.tookMs, duration: data.tookMs });
      inHand = data;
      setFound(data);
    };
    const planner = worker();
    planner.addEventListener('message', onFound);
    ask();
    return () => planner.removeEventListener('message', onFound);
  }, [key, hasWorker]);
  // Where no worker can run the plan is made here, by hand.
  const here = useMemo(() => (hasWorker || !job ? null : planFor(job, null)), [hasWorker, job]);
  const plan = here ?? found;
  return job !== null && plan?.fromMs === job.input.morning.fromMs ? plan : null;
}
