import { businessDay } from '@tempera/core/house';
import type { Session } from '@tempera/contract/team';
import { useKeepSheet } from '../kernel/sheets.ts';
import type { KnownBag } from './fresh.ts';

/** Takes a bag out of the freezer: its stay there ends today. */
export function useThaw({ site }: Pick<Session, 'site'>): (bag: KnownBag) => Promise<unknown> {
  const keep = useKeepSheet('bag');
  return ({ kept: { id, revision, retired, sheet } }) => {
    const today = businessDay(Date.now(), site.timeZone, site.dayStartsMin);
    const freezes = sheet.freezes.map((freeze) => (freeze.until === null ? { ...freeze, until: today } : freeze));
    return keep(id, { basedOn: revision, retired, sheet: { ...sheet, freezes } });
  };
}
