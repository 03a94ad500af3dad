export { learnedDrip, stopNow, type Drip } from './drip.ts';
export { findFirstDropS } from './firstDrop.ts';
export { expectedFinalG, flowGps } from './flow.ts';
export { goodBand, type GoodBand } from './goodBand.ts';
export { packTrace, unpackTrace, type PackedTrace } from './packTrace.ts';
export { readTrace, type TraceReading } from './readTrace.ts';
export { traceOfRecording, type RecordedSample, type RecordingFault } from './recording.ts';
export { nextVolumeCount, type VolumeShot } from './volumeCount.ts';
export { lastMassG, type MassTrace, type Sign, type SignKind } from './trace.ts';
