export { FactEntity, journalEntities } from './entities.ts';
export { journalRoutes } from './routes.ts';
export { recentFacts, toRecorded, withoutTrace } from './service.ts';
