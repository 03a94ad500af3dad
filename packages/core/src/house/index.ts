export { boilingPointC, boilsAt } from './boilingPoint.ts';
export { addDays, businessDay, daysBetween, momentOf } from './businessDay.ts';
export {
  hoursOn,
  nextOpening,
  openerOf,
  openSpan,
  shiftEnding,
  shiftsOn,
  weekdayOf,
  weekdays,
  type Calendar,
  type OpenSpan,
  type Shift,
  type ShiftOn,
} from './calendar.ts';
export { crossChecks, type Finding, type HouseInUse } from './crossChecks.ts';
export { carryOverC, drinkCard, SCALDS_C, type Drink, type DrinkCard } from './cuts.ts';
export { checkLimit, limits, parseNumber, type Limits, type LimitVerdict, type Quantity } from './limits.ts';
export {
  paceHelp,
  paceOf,
  type Pace,
  type PaceHelp,
  type PacedDrink,
  type PaceStations,
  type Station,
} from './pace.ts';
export { besides, usualBeside } from './usualBeside.ts';
export { ratioLimits, ratioOf, yieldOfRatioG } from './ratio.ts';
export { pumpWindowS, timeStarts, type TimedRecipe, type TimeStart } from './recipeWindow.ts';
export {
  aloneRules,
  burrRules,
  doseChecks,
  doseProofs,
  lessDoses,
  dosings,
  endings,
  endOfShot,
  firstGuesses,
  puckWays,
  purgeCounts,
  servesIt,
  tasteLevers,
  tastesIt,
  tastings,
  tornWays,
  usualServicePolicy,
  yieldReads,
  type ServicePolicy,
  type TasteLever,
} from './ways.ts';
export {
  digitsFor,
  kept,
  massUnits,
  pressureUnits,
  shown,
  shownSpan,
  temperatureUnits,
  unitSchools,
  usualUnits,
  type UnitSchool,
  volumeUnits,
  type Dimension,
  type Units,
} from './units.ts';
