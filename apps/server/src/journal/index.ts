export { FactEntity, journalEntities } from './entities.ts';
export { loadFacts } from './load.ts';
export { journalRoutes } from './routes.ts';
export { benchFacts, stepsSince, toRecorded } from './service.ts';
export { unpackedBody } from './traces.ts';
