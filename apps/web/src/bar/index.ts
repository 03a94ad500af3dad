export { HomePage } from './HomePage.tsx';
export { addFactToBar, useBar } from './queries.ts';
export { useStandings } from './useStandings.ts';
