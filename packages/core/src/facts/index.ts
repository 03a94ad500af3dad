export { entryKinds, factKinds, flaws } from './fact.ts';
export { doseWays, fills, yieldWays, type DoseWay, type Fill, type Measured, type YieldWay } from './measured.ts';
export { houseTimeMs } from './clock.ts';
export {
  factsAfter,
  factsBetween,
  factsSince,
  factsWhere,
  isWithdrawn,
  lastOfKind,
  ofGrinder,
  ofKind,
  standingFacts,
  standingOrder,
  stepsOf,
  type Entry,
  type StandingFact,
  type StandingFacts,
} from './standing.ts';
export type {
  AnyFact,
  CollarMoveBody,
  CorrectionBody,
  DoseBody,
  FactBodies,
  FactKind,
  FactOf,
  Flaw,
  LockBody,
  MeasuredBy,
  PurgeBody,
  ShotBody,
} from './fact.ts';
export {
  jobKinds,
  machineSteps,
  mendings,
  stationsOf,
  type DoseTimeStep,
  type GaugeReading,
  type GroupCheckedStep,
  type JobKind,
  type PlannedStep,
  type StepBody,
  type StepFact,
  type StepKind,
  type StepOf,
  type TastedStep,
} from './stepFact.ts';
