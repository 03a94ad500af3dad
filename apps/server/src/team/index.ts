export { requireSession, sessionOf } from './auth.ts';
export { teamEntities, PersonEntity, SiteEntity, type SiteRow, type PersonRow } from './entities.ts';
export { teamRoutes } from './routes.ts';
export { hashPin } from './service.ts';
