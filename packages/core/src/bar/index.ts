export { freePlace, GRID_CM, misplaced, putDown, usualSize } from './freePlace.ts';
export { judgeGauges, learnedWarmUp, warmthOf, warmUpsMin, type Warmth } from './warmUp.ts';
export {
  checkDue,
  grinderStanding,
  nextGrinder,
  type DueCause,
  type GrinderStanding,
  type Standing,
} from './stationState.ts';
