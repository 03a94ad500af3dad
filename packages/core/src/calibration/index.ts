export { tooSmallOrLarge } from './basket.ts';
export { lockRules, moveCaps, recheckRules, smallMisses, trimRules, usualPolicy } from './adviceCase.ts';
export type {
  AdviceCase,
  CaseShot,
  HouseEvent,
  DecisionPolicy,
  Evidence,
  LockRule,
  RecipeTarget,
  Remembered,
  ShotFault,
} from './adviceCase.ts';
export type { Advice, AdviceAction } from './advice.ts';
export { advise } from './advise.ts';
export { alternatives, bySchool, type Alternative } from './alternatives.ts';
export { covarianceAt, meanAt, sdAt, type ResponseLine } from './responseLine.ts';
export { groupOf, knownOf, levelOf, newBar, responseOf, type BarModel } from './barModel.ts';
export { bagShift, type BagShift } from './bagShift.ts';
export { fitsBasket } from './basket.ts';
export { cleanSetting, directionOf, marksFiner, mostStepsOf, settingAt, type Dial, type Direction } from './dial.ts';
export {
  dosesAtS,
  ENOUGH_DOSES,
  grindTimeForS,
  judgeDoses,
  rateWanders,
  type JudgedDoses,
  type WeighedDose,
} from './doseTime.ts';
export { engineDefaults } from './engineDefaults.ts';
export type { Judgement } from './judgement.ts';
export { missOf } from './windowMiss.ts';
export { windowMiddleS } from './windowMiddle.ts';
export { grinderOrGroup, type CrossCheck, type CrossShot, type Diagnosis, type Finding } from './grinderOrGroup.ts';
export { expectAt, type Expected } from './move.ts';
export { normalisedTime, type ShotNumbers } from './normalisedTime.ts';
export type { Reason } from './reason.ts';
export { grindThrough, oldShare, purgeAdviceG, type Retained } from './retention.ts';
export { benchState, type BenchGrinder, type BenchState } from './benchState.ts';
export {
  emptyMemory,
  evidenceKinds,
  evidenceSteps,
  updateWithFact,
  updateWithFacts,
  isMadeWith,
  type GrinderInMemory,
  type MemoryContext,
} from './barMemory.ts';
export type { BarMemory } from './memoryState.ts';
export { MEMORY_ENGINE, MEMORY_FORMAT, packMemory, unpackMemory, type PackedMemory } from './packMemory.ts';
export { posterior, remember } from './recall.ts';
export { shotMiss } from './shotMiss.ts';
export { aimChange, grinderSet, type GrinderSet } from './grinderSet.ts';
export { collarDispute, type CollarDispute } from './collarDispute.ts';
export { collarStandsAt, isCheck, lastLock, newBagWaitsSinceMs, sinceLastLock, touchedSinceLock } from './stands.ts';
export { rollout, type Choice, type Rollout } from './rollout.ts';
export { settingFor } from './settingFor.ts';
export { habitAfterBag, habitAfterShot, usualDay, usualShift, type Habit } from './habit.ts';
export { trendOver, wanderings, type Wandering } from './wanderings.ts';
export { fitCase } from './fitCase.ts';
export type { CaseFit } from './caseFit.ts';
export { priorOf, usualResponse } from './grinderPrior.ts';
export { isPredictedIn, middleThirdLn, offMiddle } from './aim.ts';
export { atDoseS, judgeLast } from './judgement.ts';
export { doesAddUp, isLastFarOut } from './poured.ts';
export { lnOfTrim } from './lnOfTrim.ts';
export { doseMissG } from './doseTolerance.ts';
export { trimDoses, weighableTrims } from './trim.ts';
