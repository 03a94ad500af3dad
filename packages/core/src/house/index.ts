export { boilingPointC, boilsAt } from './boilingPoint.ts';
export { addDays, businessDay, daysBetween, momentOf } from './businessDay.ts';
export { crossChecks, type Finding, type HouseInUse } from './crossChecks.ts';
export { carryOverC, drinkCard, SCALDS_C, type Drink, type DrinkCard } from './cuts.ts';
export { checkLimit, limits, parseNumber, type Limits, type LimitVerdict, type Quantity } from './limits.ts';
export { paceOf, type Pace, type PacedDrink, type PaceStations, type Station } from './pace.ts';
export { ratioLimits, ratioOf, yieldOfRatioG } from './ratio.ts';
export { pumpWindowS, timeStarts, type TimedRecipe, type TimeStart } from './recipeWindow.ts';
export {
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
  usualUnits,
  volumeUnits,
  type Dimension,
  type Units,
} from './units.ts';
