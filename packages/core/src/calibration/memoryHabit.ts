import { knownOf, levelOf, noiseVarianceOf, offOfShot, responseOf, type BarModel, type BarShot } from './barModel.ts';
import { engineDefaults } from './engineDefaults.ts';
import { habitAfterShot, type Habit } from './habit.ts';
import type { GrinderMemory } from './memoryState.ts';

/** Whether a shot says how its grinder goes through the day: a choke is a bound, and a blend is of the mark before. */
export const teachesHabit = ({ choked }: BarShot, oldShare: number): boolean =>
  !choked && oldShare <= engineDefaults.oldShareNotPurged;

/** What a timed shot says of how its grinder goes through the day, freed of its group and its dose. */
export function habitOf({ habit, coffee }: GrinderMemory, base: BarModel, shot: BarShot, atMs: number): Habit {
  const level = knownOf(base, levelOf(shot.grinder, coffee));
  const response = knownOf(base, responseOf(shot.grinder));
  const mean = response?.mean ?? 0;
  const lnT = (level?.mean ?? 0) + mean * shot.x + offOfShot(base, shot);
  const heard = { atMs, lnT, x: shot.x, variance: noiseVarianceOf(base, shot) };
  return habitAfterShot(habit ?? null, heard, { mean, variance: (response?.sd ?? 0) ** 2 });
}
