import { MS_PER_SECOND } from '@tempera/core/numbers';
import type { MachinePort, PullPort, PullStart } from './ports.ts';

/** A pull at a machine that tells of itself: the end of its shot stops the clock, and its counter is read. A hand may be first. */
export function throughMachine(port: PullPort, machine: MachinePort, { startedAtMs }: PullStart): PullPort {
  let shown: number | null = null;
  /** A relay may say over and over that nothing runs: only what ran can be over. */
  let ran = false;
  const off = machine.listen(({ atMs, runs, count }) => {
    // What it told before belongs to the shot before.
    const isOfThis = atMs > startedAtMs;
    if (count !== undefined && isOfThis) shown = count;
    if (runs === undefined) return;
    if (ran && !runs && isOfThis) port.stopPump(Math.round((10 * (atMs - startedAtMs)) / MS_PER_SECOND) / 10);
    ran = runs;
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
