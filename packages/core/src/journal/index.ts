export { asCorrected, inOrder } from './corrections.ts';
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
export { standingSteps, stepKinds, type GaugeReading, type StepBody, type StepFact } from './stepFact.ts';
