export { BenchPage } from './BenchPage.tsx';
export { ChooseGroupPage } from './ChooseGroupPage.tsx';
export { useDevices } from './useDevices.ts';
