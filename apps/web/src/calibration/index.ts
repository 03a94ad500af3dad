export { DoseVerdict } from './DoseVerdict.tsx';
export { calibrationRoom } from './room.ts';
export { useDevices } from './useDevices.ts';
export { viewBench } from './viewBench.ts';
