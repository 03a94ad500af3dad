export { FactEntity, journalEntities } from './entities.ts';
export { loadFacts } from './load.ts';
export { journalRoutes } from './routes.ts';
export { recentFacts, toRecorded, withoutTrace } from './service.ts';
