export { HomePage } from './HomePage.tsx';
export { addFactToBar, addStepToBar, nameIn, useBar, useLearned } from './queries.ts';
export { useStandings } from './useStandings.ts';
export { useOpeningInHand } from './useOpeningInHand.ts';
export { useStandingFacts } from './useStandingFacts.ts';
export { useUsedG } from './useUsed.ts';
