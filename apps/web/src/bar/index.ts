export { HomePage } from './HomePage.tsx';
export { addFactToBar, nameIn, useBar } from './queries.ts';
export { useStandings } from './useStandings.ts';
