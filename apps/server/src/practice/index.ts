export { demoClogged, demoPins, demoSignIns } from './demoBar.ts';
export { loadDemoCafe } from './demoCafe.ts';
