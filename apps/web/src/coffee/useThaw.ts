import type { Stock } from '@tempera/contract/coffee';
import { useQueryClient } from '@tanstack/react-query';
import { takenOut } from '@tempera/core/coffee';
import { businessDay } from '@tempera/core/house';
import type { Session } from '@tempera/contract/team';
import { useWriteStep } from '../kernel/facts.tsx';

/** Takes a bag out of the freezer: its stay there ends today, here at once and in the house once the server has heard of it. */
export function useThaw({ site }: Pick<Session, 'site'>): (bagId: string) => void {
  const write = useWriteStep();
  const client = useQueryClient();
  return (bagId) => {
    const today = businessDay(Date.now(), site.timeZone, site.dayStartsMin);
    write({ step: 'thawed', bagId });
    client.setQueryData<Stock>(
      ['coffee', 'stock'],
      (stock) =>
        stock && {
          ...stock,
          bags: stock.bags.map((bag) =>
            bag.id === bagId ? { ...bag, sheet: { ...bag.sheet, freezes: takenOut(bag.sheet.freezes, today) } } : bag,
          ),
        },
    );
  };
}
