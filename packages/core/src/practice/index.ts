export { runMorning, type MorningResult, type WayOfWorking } from './closedLoop.ts';
export { drawStation, type DrawnStation } from './drawnBar.ts';
export { drawTimer, foundAtTheBench, foundByHand, type DoseFinder } from './doseTimer.ts';
export { drawRestlessTrace, drawStart, drawTrace, type DrawnTrace } from './drawnTrace.ts';
export { diagnoseByEngine, diagnoseByHand, drawFaultyBar, type FaultVerdict, type FaultyBar } from './faultyBar.ts';
export { byOneLever, drawPalate, palateKinds, poured, type Palate, type PalateKind } from './palate.ts';
export { simulateService } from './serviceShots.ts';
export { simulateMorning, type MorningJob } from './morning.ts';
export { otherBars, runOtherBar, type OtherBar } from './otherBars.ts';
export { runTwoWeeks, type TwoWeeks } from './secondWeek.ts';
export {
  serveDay,
  servedByAllKnowing,
  servedByEngine,
  servedByHand,
  servedByOneState,
  type DayResult,
  type WayOfServing,
} from './servedDay.ts';
export { serveDays } from './servedWeeks.ts';
export { pullShot, pullShotFast, scaleReading, startShot, type ShotRun, type ShotSetUp } from './simulatedShot.ts';
export { hardDay, usualDay, type DayKind } from './surroundings.ts';
export { brewWaterC, simulatedStation, type SimulatedStation, type StationSeed } from './simulatedStation.ts';
export { withoutScale } from './withoutScale.ts';
export { byAllKnowing, byEngine, byMeanOfThree, byRuleOfThumb } from './waysOfWorking.ts';
