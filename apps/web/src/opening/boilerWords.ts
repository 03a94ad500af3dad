import type { MachineSheet } from '@tempera/contract/bar';

type Boiler = MachineSheet['boiler'];

/** How a group is flushed through the day, by what heats its water. */
export const flushWord: Record<Boiler, string> = {
  one: 'After steaming the water is far too hot: let it run until it stops hissing, then pull.',
  exchanger: 'A group that stood a while gives water too hot: a short flush before each shot, until it stops hissing.',
  brewAndSteam: 'Its brew water keeps its heat: a short flush after each shot keeps the screen clean.',
  perGroup: 'Each group keeps its own heat: a short flush after each shot keeps the screen clean.',
};

/** What steaming and brewing do to each other, by what heats the water; null where they get on. */
export const steamWord: Record<Boiler, string | null> = {
  one: 'One boiler does both: brew first; then switch to steam, wait for its light, and steam while the heater is on. Cool it down before the next shot.',
  exchanger: null,
  brewAndSteam: null,
  perGroup: null,
};
