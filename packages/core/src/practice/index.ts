export { drawMorning, runMorning, type MorningResult, type WayOfWorking } from './closedLoop.ts';
export { simulateMorning, type MorningJob } from './morning.ts';
export { gaussian, seededRandom, seedFrom, type Random } from './random.ts';
export { pullShot, scaleReading, startShot, type ShotRun, type ShotSetUp } from './simulatedShot.ts';
export { simulatedStation, type SimulatedStation, type StationSeed } from './simulatedStation.ts';
export { byAllKnowing, byEngine, byMeanOfThree, byRuleOfThumb } from './waysOfWorking.ts';
