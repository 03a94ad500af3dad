export { BenchPage } from './BenchPage.tsx';
export { ChooseGroupPage } from './ChooseGroupPage.tsx';
