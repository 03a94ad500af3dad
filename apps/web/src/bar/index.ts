export { Gauges } from './Gauges.tsx';
export { PlanDrawing } from './PlanDrawing.tsx';
export { nameIn, useBar, useLearned } from './queries.ts';
export { barRoom } from './room.ts';
export { usePaletteStations } from './usePaletteStations.ts';
export { useLocksFromMs, useOpeningInHand } from './useOpeningInHand.ts';
export { useStandingFacts } from './useStandingFacts.ts';
export { useGrinderStates } from './useGrinderStates.ts';
export { useUsedG } from './useUsed.ts';
