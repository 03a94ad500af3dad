import type { MassTrace } from '@tempera/core/capture';
import type { PullPort } from './ports.ts';

/** A pull that somebody recorded elsewhere: a scale that has said all it had to say. @param stoppedAtS when its pump stopped */
export const recordedPull = (trace: MassTrace, stoppedAtS: number): PullPort => ({
  weighs: true,
  elapsedS: () => stoppedAtS,
  trace: () => trace,
  stopPump: () => stoppedAtS,
  stoppedAtS: () => stoppedAtS,
  settled: () => true,
  lost: () => false,
  volumeCount: () => null,
  cupG: () => null,
  leave: () => undefined,
  end: () => undefined,
});
