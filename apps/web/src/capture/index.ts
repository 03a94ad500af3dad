export { scaleMishaps, type BenchDevices, type ScaleMishap } from './ports.ts';
export { simulatedDevices } from './simulatedDevices.ts';
export { simulatedAir, simulatedMachine, simulatedScale } from './simulatedStandIns.ts';
export { usePull, type LivePull } from './usePull.ts';
