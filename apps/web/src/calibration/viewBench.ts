import type { Bar, Grinder } from '@tempera/contract/bar';
import { benchGrinderOf, benchTargetOf } from '@tempera/contract/station';
import { advise, benchState, type BarMemory } from '@tempera/core/calibration';
import type { StandingFacts } from '@tempera/core/facts';

/** What stands, folded into where a bench stands, with the engine's advice. */
export function viewBench(
  grinder: Grinder,
  standing: StandingFacts,
  { house, recipesNamed }: Pick<Bar, 'house' | 'recipesNamed'>,
  nowMs: number,
  memory: BarMemory,
) {
  const target = benchTargetOf(grinder);
  const station = benchGrinderOf(grinder, recipesNamed);
  const state = benchState(standing, station, target, house, nowMs, memory);
  return { station, state, target, advice: advise(state.adviceCase), memory };
}
