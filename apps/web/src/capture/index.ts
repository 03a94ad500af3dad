export { ButtonVerdict } from './ButtonVerdict.tsx';
export { LiveChart } from './LiveChartLater.ts';
export { scaleMishaps, type BenchDevices, type ScaleMishap } from './ports.ts';
export { captureRoom } from './room.ts';
export { simulatedDevices } from './simulatedDevices.ts';
export { simulatedAir, simulatedMachine, simulatedScale } from './simulatedStandIns.ts';
export { useLiveNow, usePull, type LiveNow, type LivePull } from './usePull.ts';
