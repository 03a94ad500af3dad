export { freePlace, GRINDER_LABEL_CM, GRID_CM, misplaced, putDown, usualSize } from './freePlace.ts';
export { isLicensed, litresDrawn, upkeepState, upkeepStates, type UpkeepItem, type UpkeepState } from './upkeep.ts';
export { judgeGauges, learnedWarmUp, warmthOf, warmUpsMin, type Warmth } from './warmUp.ts';
export {
  checkDue,
  grinderState,
  nextGrinder,
  servesToday,
  type DueCause,
  type GrinderState,
  type HoldState,
} from './stationState.ts';
