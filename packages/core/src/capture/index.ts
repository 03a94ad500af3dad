export { findFirstDropS } from './firstDrop.ts';
export { expectedFinalG, flowGps } from './flow.ts';
export { readTrace, type TraceReading } from './readTrace.ts';
export { nextVolumeCount, type VolumeShot } from './volumeCount.ts';
export { lastMassG, type MassTrace, type Sign, type SignKind } from './trace.ts';
