export { dayStartMs } from './day.ts';
export { FactEntity, journalEntities } from './entities.ts';
export { loadFacts } from './load.ts';
export { journalRoutes } from './routes.ts';
export { benchFacts, stepsSince, toRecorded } from './service.ts';
export { sureSeq } from './sure.ts';
export { notWithdrawn } from './withdrawn.ts';
export { unpackedBody } from './traces.ts';
