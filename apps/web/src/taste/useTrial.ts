import type { StandingFacts } from '@tempera/core/facts';
import { trialOf, trialState, type Trial, type TrialState } from '@tempera/core/taste';
import { useEffect, useEffectEvent, useMemo, useState } from 'react';
import type { TrialAnswer, TrialJob } from './trial.worker.ts';

/** Where a coffee's newest trial stands; `state` is null while it is computed, and where no trial was begun. */
export function useTrial(facts: StandingFacts, coffeeId: string): { trial: Trial | null; state: TrialState | null } {
  const trial = useMemo(() => trialOf(facts, coffeeId), [facts, coffeeId]);
  const key = trial ? [trial.began.id, ...trial.tasted.map(({ id }) => id)].join() : null;
  const [found, setFound] = useState<TrialAnswer | null>(null);
  const hasWorker = typeof Worker !== 'undefined';
  const ask = useEffectEvent((worker: Worker, asked: string) => {
    if (!trial) return;
    const job: TrialJob = { key: asked, plan: trial.plan, pairs: trial.tasted.map(({ body }) => body) };
    worker.postMessage(job);
  });
  useEffect(() => {
    if (key === null || !hasWorker) return undefined;
    const worker = new Worker(new URL('./trial.worker.ts', import.meta.url), { type: 'module' });
    worker.addEventListener('message', ({ data }: MessageEvent<TrialAnswer>) => setFound(data));
    ask(worker, key);
    return () => worker.terminate();
  }, [key, hasWorker]);
  // Where no worker can run it is weighed here.
  const here = useMemo(
    () =>
      trial && !hasWorker
        ? trialState(
            trial.plan,
            trial.tasted.map(({ body }) => body),
          )
        : null,
    [trial, hasWorker],
  );
  return { trial, state: here ?? (found?.key === key ? found.state : null) };
}
