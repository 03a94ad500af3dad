export { grinderStanding, nextGrinder, type GrinderStanding, type Standing } from './stationState.ts';
