import type { Reason } from '@tempera/core/calibration';
import { describe, expect, it } from 'vitest';
import { plainWriter, reasonWord } from './adviceWords.ts';

const window = { min: 25, max: 30 };

describe('a reason in words', () => {
  it.each<[Reason, string]>([
    [
      { code: 'ran', normalisedS: 22, missS: -3, window },
      "At the recipe's dose and yield it ran 22.0 s: 3.0 s too fast.",
    ],
    [
      { code: 'ran', normalisedS: 33.5, missS: 3.5, window },
      "At the recipe's dose and yield it ran 33.5 s: 3.5 s too slow.",
    ],
    [
      { code: 'ran', normalisedS: 27, missS: 0, window },
      "At the recipe's dose and yield it ran 27.0 s: inside 25-30 s.",
    ],
    [{ code: 'doseOff', byG: -0.8 }, 'The dose was 0.8 g under: put the dose right before the collar.'],
    [
      { code: 'chances', from: 30, here: 0.071, setting: 28, there: 0.9991 },
      'At 30 it is 7 % likely to hold the window, at 28 it is over 99 %.',
    ],
    [
      { code: 'sureEnough', shots: 1, setting: 30, chance: 0.94 },
      '1 sound shot at 30: 94 % sure that it holds the window.',
    ],
    [
      { code: 'trim', setting: 29.5, byG: 0.3, before: 0.62, after: 0.88 },
      '29.5 lies between: 0.3 g more coffee brings the chance from 62 % to 88 %, without a purge.',
    ],
    [
      { code: 'noMarkHolds', window, nearest: 29, timeS: 33.04, chance: 0.12 },
      'No mark of this dial holds 25-30 s: 29 comes nearest, at about 33.0 s (12 %).',
    ],
    [
      { code: 'notSureYet', chance: 0.8, asked: 0.93, costs: { stay: 1.24, move: 2, to: 29 } },
      "80 % sure so far, the house asks 93 %: from here it takes about 1.2 shots' worth, after a move to 29 about 2.0 shots' worth.",
    ],
    [
      { code: 'notSureYet', chance: 0.8, asked: 0.93, costs: null },
      '80 % sure so far, the house asks 93 %: one more shot here before it is left.',
    ],
    [{ code: 'moved', to: 27 }, 'The collar was moved to 27: a shot there comes next.'],
    [{ code: 'purge', grams: 12.5, first: true }, 'Purge 12.5 g first, or the shot is a blend of two settings.'],
  ])('%o', (reason, said) => {
    expect(reasonWord(reason, plainWriter)).toBe(said);
  });
});
