export { ButtonCheck } from './ButtonCheck.tsx';
export { Gauges } from './Gauges.tsx';
export { PiecePage } from './PiecePage.tsx';
export { PiecesPage } from './PiecesPage.tsx';
export { PlanPage } from './PlanPage.tsx';
export { PlanDrawing } from './PlanDrawing.tsx';
export { DoseVerdict, ENOUGH_DOSES, judgeDoses } from './DoseVerdict.tsx';
export { ButtonVerdict, ENOUGH_YIELDS, judgeButton } from './ButtonVerdict.tsx';
