export { aheadG, type Pace } from './ahead.ts';
export { isAirNews, type Air } from './airNews.ts';
export { learnedDrip, stopNow, type Drip } from './drip.ts';
export { findFirstDropS } from './firstDrop.ts';
export { expectedFinalG, flowGps } from './flow.ts';
export { glassWeight, yieldInGlass, type GlassWeight } from './glass.ts';
export { goodBand, type GoodBand } from './goodBand.ts';
export { goodStart, type GoodStart } from './goodStart.ts';
export { packTrace, unpackTrace, type PackedTrace } from './packTrace.ts';
export { readTrace, type TraceReading } from './readTrace.ts';
export { tared } from './tare.ts';
export { traceOfRecording, type RecordedSample, type RecordingFault } from './recording.ts';
export { ENOUGH_YIELDS, judgeButton, programmed, type JudgedButton, type VolumeShot } from './volumeCount.ts';
export { lastMassG, type MassTrace, type Sign, type SignKind } from './trace.ts';
export { lineReader } from './lineReader.ts';
export { readingClock, spreadArrival } from './readingClock.ts';
export { asksForUnit, gPerUnit, gramsOfLine, massUnits, readScaleLine, type MassUnit } from './scaleLine.ts';
export {
  barScaleService,
  packReading,
  scaleOrders,
  unpackReading,
  unpackWeight,
  weightScaleService,
  type ScalePacket,
} from './scalePacket.ts';
