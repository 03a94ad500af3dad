import type { PaletteLine } from '../kernel/room.ts';
import { useBar } from './queries.ts';

/** Every station of the bar, as the palette finds it. */
export function usePaletteStations(): PaletteLine[] {
  const { data: bar } = useBar();
  if (!bar) return [];
  return [
    ...bar.grinders.map(({ id, name, coffee }) => ({ id, label: name, to: `/bench/${id}`, says: `Bench: ${coffee}` })),
    ...bar.waiting.map(({ id, name }) => ({ id, label: name, to: `/bar/grinder/${id}`, says: 'Waits for a coffee' })),
    ...bar.machines.flatMap((machine) => [
      { id: machine.id, label: machine.name, to: `/bar/machine/${machine.id}`, says: 'Machine' },
      ...machine.groups.map(({ id, name }) => ({
        id,
        label: name,
        to: `/bar/group/${id}`,
        says: `Group head of ${machine.name}`,
      })),
    ]),
  ];
}
