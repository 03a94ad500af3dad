export { demoPins, demoSignIns, loadDemoCafe } from './demoCafe.ts';
