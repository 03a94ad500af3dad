export { identifyBySession } from './auth.ts';
export { PersonEntity, SiteEntity, type PersonRow, type SiteRow } from './entities.ts';
export { teamRoom } from './room.ts';
export { hashPin } from './service.ts';
