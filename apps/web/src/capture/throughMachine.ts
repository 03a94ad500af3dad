import { MS_PER_SECOND } from '@tempera/core/numbers';
import type { MachinePort, PullPort, PullStart } from './ports.ts';

/** A pull at a machine that tells of itself: the end of its shot stops the clock, and its counter is read. A hand may be first. */
export function throughMachine(port: PullPort, machine: MachinePort, { startedAtMs }: PullStart): PullPort {
  let shown: number | null = null;
  const off = machine.listen(({ atMs, runs, count }) => {
    // What it told before belongs to the shot before.
    if (atMs <= startedAtMs) return;
    if (count !== undefined) shown = count;
    if (runs === false) port.stopPump(Math.round((10 * (atMs - startedAtMs)) / MS_PER_SECOND) / 10);
  });
  return {
    ...port,
    volumeCount: () => shown,
    leave: () => {
      off();
      port.leave();
    },
    end: () => {
      off();
      port.end();
    },
  };
}
