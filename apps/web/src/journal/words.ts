import type { FactKind, Flaw, JobKind } from '@tempera/core/facts';

export const flawWord: Record<Flaw, string> = {
  channel: 'Channel',
  uneven: 'Uneven bed',
  wrongDose: 'Wrong dose',
  choke: 'Choked',
  other: 'Something else',
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

/** What a job of the opening is called, before the name of its station. */
export const jobWord: Record<JobKind, string> = {
  water: 'Water and filter',
  switchOn: 'Switch on',
  hot: 'Read the gauges',
  scale: 'Check the scale',
  hopper: 'Fill the hopper',
  rinse: 'Rinse',
  doseTime: 'First dose and dose time',
  dial: 'Dial in',
  groupCheck: 'Check',
  button: 'Measure the volume button',
  taste: 'Taste',
  milk: 'Milk station',
  signOff: 'Sign off',
};
