import type { MachineSheet } from '@tempera/contract/bar';
import { useSheets } from '../kernel/sheets.ts';
import type { MorningView } from './useMorning.ts';

/** What heats the water of a group; of the first machine where no group is named. Null until it is read. */
export function useBoilerOf(view: MorningView, groupId: string | null): MachineSheet['boiler'] | null {
  const { data: machines } = useSheets('machine');
  const at = view.bar.machines.find(({ groups }) => groupId === null || groups.some(({ id }) => id === groupId));
  return machines?.find(({ id }) => id === at?.id)?.sheet.boiler ?? null;
}
