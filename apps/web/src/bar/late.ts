export { PiecePage } from './PiecePage.tsx';
export { PiecesPage } from './PiecesPage.tsx';
export { PlanPage } from './PlanPage.tsx';
