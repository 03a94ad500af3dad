import { chanceBetween, MINUTES_PER_DAY, MINUTES_PER_HOUR } from '../numbers/index.ts';
import type { AdviceCase } from './adviceCase.ts';
import { engineDefaults } from './engineDefaults.ts';
import type { Expected } from './move.ts';

/**
 * Minutes until the chance of being outside the window reaches the house's risk, as the doubt of the level grows with
 * time; never sooner than 5 minutes, never later than the house's longest interval. Houses that check by the clock get
 * their interval; those that check only when something changed, none before the day is over.
 */
export function nextCheckMin(expected: Expected, { recipe, house }: Pick<AdviceCase, 'recipe' | 'house'>): number {
  if (house.recheck === 'hours') return house.longestCheckMin;
  if (house.recheck === 'changes') return MINUTES_PER_DAY;
  const { nextCheckMinMin, driftSdPerRootHour } = engineDefaults;
  const mean = Math.log(expected.timeS);
  const { min, max } = recipe.timeS;
  const outsideAfter = (minutes: number): number => {
    const sd = Math.hypot(expected.sd, driftSdPerRootHour * Math.sqrt(minutes / MINUTES_PER_HOUR));
    return 1 - chanceBetween(mean, sd, Math.log(min), Math.log(max));
  };
  let minutes: number = nextCheckMinMin;
  while (minutes < house.longestCheckMin && outsideAfter(minutes + 1) < house.risk) minutes += 1;
  return minutes;
}
