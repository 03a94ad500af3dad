import { sheetHandlers } from '../kernel/sheets.ts';
import { roomOf } from '../kernel/room.ts';
import { OtherHands1798200000002 } from './migrations/1798200000002-other-hands.ts';
import { UpkeepInOneList1799900000008 } from './migrations/1799900000008-upkeep-in-one-list.ts';
import { Upkeep1799700000001 } from './migrations/1799700000001-upkeep.ts';
import { barEffects } from './effects.ts';
import { barEntities } from './entities.ts';
import { learnedOf } from './learned.ts';
import { changePlan } from './plan.ts';
import { readBar } from './service.ts';
import { upkeepOf } from './upkeep.ts';
import { basketTable, counterTable, fixtureTable, grinderTable, groupTable, machineTable } from './tables.ts';

/** The equipment as it stands, its sheets and what it has taught. */
export const barRoom = roomOf({
  name: 'bar',
  tables: barEntities,
  migrations: [OtherHands1798200000002, Upkeep1799700000001, UpkeepInOneList1799900000008],
  effects: barEffects,
  handlers: ({ db }) => ({
    'GET /bar': ({ session }) => readBar(db, session.site.id),
    'PUT /bar/plan': async ({ session, body }) => {
      await changePlan(db, session, body);
      return readBar(db, session.site.id);
    },
    'GET /bar/upkeep': ({ session }) => upkeepOf(db, session.site.id),
    'GET /bar/learned': ({ session }) => learnedOf(db, session.site.id),
    ...sheetHandlers(db, machineTable),
    ...sheetHandlers(db, groupTable),
    ...sheetHandlers(db, grinderTable),
    ...sheetHandlers(db, basketTable),
    ...sheetHandlers(db, fixtureTable),
    ...sheetHandlers(db, counterTable),
  }),
});
