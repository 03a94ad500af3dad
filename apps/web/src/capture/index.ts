export type { BenchDevices } from './ports.ts';
export { simulatedDevices } from './simulatedDevices.ts';
export { usePull, type LivePull } from './usePull.ts';
