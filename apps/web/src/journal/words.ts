import { textureWord } from '@tempera/contract/adviceWords';
import type { FactKind, Flaw, Sighting } from '@tempera/core/facts';

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
  seen: 'Sign',
  correction: 'Correction',
  step: 'Step',
};

/** What eyes and fingers told, and what it means. */
export const sightingWord: Record<Sighting, string> = {
  powder: `Grounds like ${textureWord.powder}`,
  flour: `Grounds like ${textureWord.flour}`,
  fineSalt: `Grounds like ${textureWord.fineSalt}`,
  salt: `Grounds like ${textureWord.salt}`,
  sand: `Grounds like ${textureWord.sand}`,
  clumping: 'Grounds clump: the finer setting has arrived',
  thinCrema: 'Thin crema: often too fast, or the coffee fades',
  layeredCrema: 'Crema settles in layers, as it should',
  stuckPuck: 'Puck sticks to the screen: that says little',
  sludgyPuck: 'Sludgy puck: a low dose for its basket, else it says little',
  asItShould: 'Ran as it should, by eye',
  fastPale: 'Ran fast and pale, by eye',
  slowDark: 'Ran slow and dark, by eye',
  littleIn: 'Too little in the basket, by eye',
};
