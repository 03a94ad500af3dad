export { ButtonVerdict } from './ButtonVerdict.tsx';
export { LiveChart } from './LiveChartLater.ts';
export type { BenchDevices, ScaleMishap } from './ports.ts';
export { captureRoom } from './room.ts';
export { useBenchDevices } from './useBenchDevices.ts';
export { useMachineAt } from './useMachineAt.ts';
export { useOnScale } from './useOnScale.ts';
export { useLiveNow, usePull, type LiveNow, type LivePull } from './usePull.ts';
export { useAir, useGauges, useScaleToCheck } from './useReaders.ts';
