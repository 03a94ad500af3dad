export { servedWay } from './doseWords.ts';
export { DoseVerdict } from './DoseVerdict.tsx';
export { emptyFirstWord, InChamber } from './InChamber.tsx';
export { leftAfterS } from './benchMoves.ts';
export { calibrationRoom } from './room.ts';
export { viewBench } from './viewBench.ts';
