import { businessDay, momentOf } from '@tempera/core/house';
import type { DataSource } from 'typeorm';
import { SiteEntity } from '../team/index.ts';

/** When the café's business day began, ms since the epoch: what is handed out with the bar reaches back to it. */
export async function dayStartMs(db: DataSource, siteId: string, nowMs = Date.now()): Promise<number> {
  const { timeZone, dayStartsMin } = await db.getRepository(SiteEntity).findOneByOrFail({ id: siteId });
  return momentOf(businessDay(nowMs, timeZone, dayStartsMin), dayStartsMin, timeZone);
}
