export { freePlace, GRID_CM, misplaced, putDown, usualSize } from './freePlace.ts';
export { judgeGauges, learnedWarmUp, warmthOf, warmUpsMin, type Warmth } from './warmUp.ts';
export { grinderStanding, nextGrinder, type GrinderStanding, type Standing } from './stationState.ts';
