export { BenchPage } from './BenchPage.tsx';
export { ChooseGroupPage } from './ChooseGroupPage.tsx';
export { addFactToBench } from './queries.ts';
export { adviceTitle } from './words.ts';
