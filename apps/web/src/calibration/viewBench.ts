import type { Bar, Grinder } from '@tempera/contract/bar';
import { benchGrinderOf, benchTargetOf } from '@tempera/contract/station';
import { advise, benchState, type BarMemory } from '@tempera/core/calibration';
import type { StandingFacts } from '@tempera/core/facts';

/** What stands, folded into where a bench stands, with the engine's advice. */
export function viewBench(
  grinder: Grinder,
  standing: StandingFacts,
  house: Bar['house'],
  nowMs: number,
  memory: BarMemory,
) {
  const target = benchTargetOf(grinder);
  const state = benchState(standing, benchGrinderOf(grinder), target, house, nowMs, memory);
  return { state, target, advice: advise(state.adviceCase), memory };
}
