import type { CupWord, Preference, TrialAxis, TrialCup } from '@tempera/core/taste';
import { grams, seconds } from '../kernel/format.ts';

export const betterWord: Record<Preference, string> = {
  leftMuch: 'Left, clearly',
  left: 'Left, a little',
  same: 'The same',
  right: 'Right, a little',
  rightMuch: 'Right, clearly',
};

export const axisWord: Record<TrialAxis, string> = {
  ratio: 'How much runs into the cup',
  timeS: 'How long it runs',
  doseG: 'The dose',
  tempC: 'The water’s heat',
};

export const sourBitterWord: Record<NonNullable<CupWord['sourBitter']>, string> = {
  sour: 'too sour',
  right: 'right',
  bitter: 'too bitter',
};
export const weakStrongWord: Record<NonNullable<CupWord['weakStrong']>, string> = {
  weak: 'too weak',
  right: 'right',
  strong: 'too strong',
};

/** "18.0 g in, 36.0 g out, 27.0 s". */
export const cupWord = ({ doseG, ratio, timeS }: TrialCup): string =>
  `${grams(doseG)} in, ${grams(doseG * ratio)} out, ${seconds(timeS)}`;
