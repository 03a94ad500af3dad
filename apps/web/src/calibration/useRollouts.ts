import type { Bar, Grinder } from '@tempera/contract/bar';
import type { Entry } from '@tempera/core/facts';
import type { Choice, Rollout } from '@tempera/core/calibration';
import { useEffect, useEffectEvent, useState } from 'react';

/** What the worker needs to see a bench as the page sees it: facts and numbers only, since no class crosses over. */
export interface RolloutJob {
  grinder: Grinder;
  bar: Bar;
  /** What stands of the whole bar. */
  facts: readonly Entry[];
  nowMs: number;
  choices: Choice[];
}

/** What each choice leads to, by its setting; fills as the worker finds out. Empty where no worker can run. */
export function useRollouts(job: RolloutJob): ReadonlyMap<number, Rollout> {
  const [found, setFound] = useState<{ key: string; bySetting: Map<number, Rollout> }>({
    key: '',
    bySetting: new Map(),
  });
  // The clock moves on while the drawer is open; only other facts or choices are another question.
  const key = JSON.stringify([job.facts.at(-1)?.id, job.choices]);
  const ask = useEffectEvent((worker: Worker) => worker.postMessage(job));
  useEffect(() => {
    if (typeof Worker === 'undefined') return undefined;
    const worker = new Worker(new URL('./rollout.worker.ts', import.meta.url), { type: 'module' });
    worker.onmessage = ({ data }: MessageEvent<Rollout & { setting: number }>) => {
      setFound((before) => ({
        key,
        bySetting: new Map(before.key === key ? before.bySetting : []).set(data.setting, data),
      }));
    };
    ask(worker);
    return () => worker.terminate();
  }, [key]);
  return found.key === key ? found.bySetting : new Map();
}
