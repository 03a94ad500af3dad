import { engineDefaults } from './engineDefaults.ts';

/** One belief of how a grinder wanders through a day, and how common that is. */
export interface Wandering {
  /** Sd of ln T per root hour. */
  walkSd: number;
  /** Sd of its trend, ln T per hour. */
  trendSd: number;
  /** Sd of ln T that another bag adds. */
  bagSd: number;
  chance: number;
}

/** Every belief of how a grinder may wander; what it did on its days says which of them fits. */
export const wanderings: readonly Wandering[] = engineDefaults.walks.flatMap((walk) =>
  engineDefaults.trends.flatMap((trend) =>
    engineDefaults.bags.map((bag) => ({
      walkSd: walk.sdPerRootHour,
      trendSd: trend.sdPerHour,
      bagSd: bag.sd,
      chance: walk.chance * trend.chance * bag.chance,
    })),
  ),
);

/**
 * What some hours do to a trend of sd 1 that comes and goes (integrated Ornstein-Uhlenbeck process; Uhlenbeck and Ornstein 1930): how
 * many hours' worth of it the level takes up, what is left of it, and the variances that are added.
 */
export function trendOver(hours: number): {
  takenUp: number;
  left: number;
  levelVariance: number;
  covariance: number;
  variance: number;
} {
  const lasts = engineDefaults.trendLastsHours;
  const left = Math.exp(-hours / lasts);
  const takenUp = lasts * (1 - left);
  return {
    takenUp,
    left,
    levelVariance: 2 * lasts * (hours - 2 * takenUp + (lasts / 2) * (1 - left ** 2)),
    covariance: takenUp ** 2 / lasts,
    variance: 1 - left ** 2,
  };
}
