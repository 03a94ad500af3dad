export { expectedFinalG, findFirstDropS, flowGps, lastMassG, type MassTrace } from './readTrace.ts';
