export { closedBefore, closedNow, type Closed, type LeftJob } from './closing.ts';
export { dangersAt } from './cautions.ts';
export type { NotRight } from './notRight.ts';
export { crossShots, diagnoseBar, groupVerdict, type CheckedBar, type GroupVerdict } from './groupChecks.ts';
export { jobHistory, runSpans, type RunSpan } from './jobHistory.ts';
export { learnedMinutes, minutesOf, type History, type Shots } from './jobMinutes.ts';
export { dangers, jobKey, jobsOf, SCALE, type Danger, type Job, type Minutes, type OpeningBar } from './jobs.ts';
export { makePlan, quickEffort, usualEffort, type PlanEffort, type ProvenPlan } from './makePlan.ts';
export { checkThermometer, stopSteamC, type ThermometerIn } from './milkCheck.ts';
export { planProblem, quickPlan, withoutHands, type PlanInput } from './morningPlan.ts';
export { nextThings, type NextThing } from './nextThings.ts';
export {
  morningOf,
  openingState,
  runBefore,
  locksFromMs,
  type JobProgress,
  type JobState,
  type Morning,
  openingFromMs,
} from './openingState.ts';
export { planChange, type ChangeCause, type PlanChange, type PlanSeen } from './planChanges.ts';
export type { MipAnswer, MipModel, SolveMip } from './planModel.ts';
export { may, rightsOf, type PlannedTask } from './planProblem.ts';
export { latestSwitchOnMin, readiness, type Readiness } from './readiness.ts';
export { checkScale } from './scaleCheck.ts';
export { faultsOf, grinderSigned, type Fault, type GrinderSigned } from './signOff.ts';
