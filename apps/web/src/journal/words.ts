import type { FactKind, Flaw } from '@tempera/core/facts';

export const flawWord: Record<Flaw, string> = {
  channel: 'Channel',
  uneven: 'Uneven bed',
  wrongDose: 'Wrong dose',
  choke: 'Choked',
  other: 'Something else',
  ring: 'Ring around a dry middle',
  oneSide: 'One side first',
  jets: 'Fine jets',
  paleEarly: 'Pale too early',
};

export const kindWord: Record<FactKind | 'step', string> = {
  shot: 'Shot',
  dose: 'Dose',
  collarMove: 'Collar move',
  purge: 'Purge',
  lock: 'Lock',
  newBag: 'New bag',
  correction: 'Correction',
  step: 'Step',
};
