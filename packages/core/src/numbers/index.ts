export { chanceBetween, lnStudentT, normalCdf, normalDensity, truncatedAbove } from './normal.ts';
export { gaussian, seededRandom, seedFrom, type Random } from './random.ts';
export { mean, median, quantile, standardDeviation, sum, variance } from './statistics.ts';
export {
  hoursBetween,
  HOURS_PER_DAY,
  MINUTES_PER_DAY,
  MINUTES_PER_HOUR,
  MS_PER_DAY,
  MS_PER_HOUR,
  MS_PER_MINUTE,
  MS_PER_SECOND,
  MS_PER_WEEK,
} from './time.ts';
export { FLOAT_DUST, Z_80 } from './tolerances.ts';
export { usual } from './usual.ts';
