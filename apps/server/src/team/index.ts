export { requireSession, sessionOf } from './auth.ts';
export { teamEntities, PersonEntity, SessionEntity, SiteEntity, type PersonRow } from './entities.ts';
export { teamRoutes } from './routes.ts';
export { findSession, hashPin } from './service.ts';
