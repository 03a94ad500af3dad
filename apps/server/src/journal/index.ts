export { entryColumns, houseAt } from './asEntry.ts';
export { dayStartMs } from './day.ts';
export { loadFacts } from './load.ts';
export { placesAfter, standsOf } from './places.ts';
export { benchFacts, recordedByIds, stepsSince } from './service.ts';
export { sureSeq } from './sure.ts';
export { notWithdrawn } from './withdrawn.ts';
export { unpackedBody } from './traces.ts';
export { journalRoom } from './room.ts';
