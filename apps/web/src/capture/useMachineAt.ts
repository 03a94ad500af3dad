import { useMemo } from 'react';
import type { MachinePort } from './ports.ts';
import { useDeviceList, useShelf } from './useShelf.ts';

/** The machine's own word on the shots of a group, where a device that tells it was put there; null: none was. */
export function useMachineAt(groupId: string): MachinePort | null {
  const shelf = useShelf();
  const id = useDeviceList().find(({ kind, stationId }) => kind === 'machine' && stationId === groupId)?.id ?? null;
  return useMemo(
    () =>
      shelf === null || id === null
        ? null
        : {
            listen: (onNews) => {
              const last = shelf.all().find((device) => device.id === id)?.last.on;
              if (last) onNews({ atMs: last.atMs, runs: last.value > 0 });
              return shelf.hear(id, (unit, { atMs, value }) => {
                if (unit === 'on') onNews({ atMs, runs: value > 0 });
                if (unit === 'count') onNews({ atMs, count: value });
              });
            },
          },
    [shelf, id],
  );
}
