export {
  leverAxes,
  leverEffects,
  leverSteps,
  tastedChanges,
  usualSteps,
  type LeverAxis,
  type LeverEffects,
  type LeverSteps,
} from './leverEffects.ts';
export {
  changesTo,
  judgeTaste,
  roasts,
  tasteAimOf,
  usualTasteAim,
  type OwnNumbers,
  type Roast,
  type TasteAim,
  type TasteChange,
  type TasteFault,
} from './tasteChange.ts';
export { canChange, type Reach } from './reach.ts';
export {
  comparisons,
  sheetOf,
  tasteAxes,
  untasted,
  type Comparison,
  type TasteAxis,
  type Tasted,
} from './tasteSheet.ts';
export { biasOf, tasterBiases, type TasterBias } from './tasters.ts';
export { extractionPct, tasteTable, type TasteTable } from './tasteTable.ts';
export {
  aimAfter,
  aimChangesOf,
  aimKeptFor,
  DAYS_TO_A_VERSION,
  daysOfAim,
  windowShiftS,
  type AimChange,
  type AimNumbers,
} from './todaysAim.ts';
export {
  axisSd,
  preferences,
  sourBitterWords,
  trialAxes,
  weakStrongWords,
  type CupWord,
  type Preference,
  type TrialAxis,
  type TrialCup,
  type TrialPair,
} from './trialModel.ts';
export { axisStep, MOST_CUPS, trialState, type NextPair, type TrialPlan, type TrialState } from './trialPlan.ts';
export { trialOf, type Trial } from './trialOf.ts';
export { draftedRecipe, type DraftedRecipe } from './trialRecipe.ts';
export { tasteDecisions, type TasteDecision } from './decisions.ts';
