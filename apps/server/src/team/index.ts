export { endedAmong } from './sessions.ts';
export { identifyBySession } from './auth.ts';
export { PersonEntity, SiteEntity, type PersonRow, type SiteRow } from './entities.ts';
export { teamRoom } from './room.ts';
export { tokenOf } from './auth.ts';
export { hasCafe } from './cafe.ts';
export { drawCode, hashPin } from './pin.ts';
export { tokenHash } from './sessions.ts';
export { whoSaidYes } from './yes.ts';
