import { describe, expect, it } from 'vitest';
import { afterPair, axisSd, beliefAbout, bestCup, type CupWord, type Preference, type TrialCup } from './trialModel.ts';
import { draftedRecipe } from './trialRecipe.ts';
import { MOST_CUPS, trialState, type TrialPlan } from './trialPlan.ts';

const start: TrialCup = { ratio: 2, timeS: 27, doseG: 18, tempC: 93 };
const plan: TrialPlan = { start, axes: ['ratio', 'timeS'], purgeG: 20 };
const unsaid: CupWord = { sourBitter: null, weakStrong: null };
const cup = (ratio: number, timeS = 27): TrialCup => ({ ...start, ratio, timeS });
const pair = (left: TrialCup, right: TrialCup, better: Preference, leftWord = unsaid, rightWord = unsaid) => ({
  ...{ left, right, better, leftWord, rightWord },
});
const axes = ['ratio', 'timeS'] as const;

describe('what a pair of cups says', () => {
  it('nothing before anybody tasted: the best lies about the start, as far off as such things do', () => {
    const { cup: best, sd } = bestCup(beliefAbout(start, axes));
    expect(best.ratio).toBeCloseTo(2, 1);
    expect(best.timeS).toBeCloseTo(27, 0);
    expect(sd.ratio).toBeCloseTo(axisSd.ratio, 1);
    expect(sd.timeS).toBeCloseTo(axisSd.timeS, 0);
    expect([best.doseG, sd.doseG]).toEqual([18, 0]);
  });

  it.each<[string, Preference, number]>([
    ['a shorter cup that is clearly better draws the best shorter', 'leftMuch', -1],
    ['a longer one longer', 'rightMuch', 1],
  ])('%s', (_, better, way) => {
    const { cup: best, sd } = bestCup(afterPair(beliefAbout(start, axes), pair(cup(1.8), cup(2.2), better)));
    expect(way * (best.ratio - 2)).toBeGreaterThan(0.05);
    expect(sd.ratio).toBeLessThan(axisSd.ratio);
  });

  it.each<[string, Partial<CupWord>, Partial<Record<'ratio' | 'timeS', number>>]>([
    ['sour: more is taken out, by a longer or a slower cup', { sourBitter: 'sour' }, { ratio: 1, timeS: 1 }],
    ['bitter: less', { sourBitter: 'bitter' }, { ratio: -1, timeS: -1 }],
    ['weak: shorter and slower', { weakStrong: 'weak' }, { ratio: -1, timeS: 1 }],
    ['strong: longer and faster', { weakStrong: 'strong' }, { ratio: 1, timeS: -1 }],
  ])('both are %s', (_, word, ways) => {
    const said = { ...unsaid, ...word };
    const { cup: best } = bestCup(afterPair(beliefAbout(start, axes), pair(start, start, 'same', said, said)));
    for (const [axis, way] of Object.entries(ways)) {
      expect(way * (best[axis as 'ratio'] - start[axis as 'ratio'])).toBeGreaterThan(0.05 * axisSd[axis as 'ratio']);
    }
  });

  it('is Bayes’ rule: the weight of each hypothesis is multiplied by the chance of what was said, and no order matters', () => {
    const pairs = [
      pair(cup(1.8), cup(2.2), 'left', { sourBitter: 'right', weakStrong: 'strong' }),
      pair(cup(2, 24), cup(2, 30), 'same'),
    ];
    const told = (order: typeof pairs): number[] => [...order.reduce(afterPair, beliefAbout(start, axes)).weights];
    const [forth, back] = [told(pairs), told(pairs.toReversed())];
    expect(forth.reduce((sum, weight) => sum + weight, 0)).toBeCloseTo(1, 9);
    for (const i of [0, 17, 4_000]) expect(forth[i]).toBeCloseTo(back[i] ?? NaN, 12);
  });

  it('left and right count alike', () => {
    const told = bestCup(afterPair(beliefAbout(start, axes), pair(cup(1.7), cup(2.3), 'leftMuch')));
    const swapped = bestCup(afterPair(beliefAbout(start, axes), pair(cup(2.3), cup(1.7), 'rightMuch')));
    expect(told.cup.ratio).toBeCloseTo(swapped.cup.ratio, 1);
  });
});

describe('a trial', () => {
  it('asks for two cups that differ, near the start, by steps that a bar can hit; the same pairs ask for the same', () => {
    const { next, over } = trialState(plan, []);
    expect(over).toBeNull();
    expect(next).toEqual(trialState(plan, []).next);
    expect(next?.left).not.toEqual(next?.right);
    for (const one of [next?.left, next?.right]) {
      expect(Math.abs((one?.ratio ?? 9) - 2)).toBeLessThan(0.7);
      expect(((one?.timeS ?? 0.1) * 10) % 5).toBe(0);
      expect(one?.doseG).toBe(18);
    }
  });

  it('moves no collar where a purge costs more than a cup says', () => {
    const dear = trialState({ ...plan, purgeG: 400 }, []).next;
    // More in the cup takes longer at the same mark: t is 0.22 t + 0.78 t (Y / Y0)^0.95.
    const share = (one: TrialCup | undefined): number => 0.22 + 0.78 * ((one?.ratio ?? NaN) / 2) ** 0.95;
    const expected = ((dear?.left.timeS ?? NaN) * share(dear?.right)) / share(dear?.left);
    expect(Math.abs((dear?.right.timeS ?? NaN) - expected)).toBeLessThan(0.6);
    expect(dear?.right.ratio).not.toBe(dear?.left.ratio);
    expect(dear?.grams).toBe(36);
  });

  it('is over after eight cups at the latest', () => {
    const odd = [1.8, 2.2, 1.9, 2.3].map((ratio, i) => pair(cup(ratio), cup(2), i % 2 ? 'left' : 'right'));
    const { cups, next, over } = trialState(plan, odd);
    expect([cups, next, over]).toEqual([MOST_CUPS, null, 'allCups']);
  });

  it('ends before where another pair would be written the same', () => {
    // Of one axis alone, and cups called right all round: there is little left to find.
    const right: CupWord = { sourBitter: 'right', weakStrong: 'right' };
    const short: CupWord = { sourBitter: 'sour', weakStrong: 'strong' };
    const long: CupWord = { sourBitter: 'bitter', weakStrong: 'weak' };
    const onlyRatio: TrialPlan = { ...plan, axes: ['ratio'] };
    const pairs = [
      pair(cup(1.7), cup(2), 'rightMuch', short, right),
      pair(cup(2), cup(2.3), 'leftMuch', right, long),
      pair(cup(1.9), cup(2.1), 'same', right, right),
    ];
    const { over, best } = trialState(onlyRatio, pairs);
    expect(over).toBe('nothingToGain');
    expect(best.cup.ratio).toBeCloseTo(2, 1);
  });

  it('drafts a recipe in numbers that can be read off a scale, with its doubt', () => {
    const best = {
      cup: { ratio: 2.133, timeS: 28.3, doseG: 18.04, tempC: 93.2 },
      sd: { ...start, ratio: 0.1, timeS: 2, doseG: 0 },
    };
    // 18.0 g times 2.133 is 38.4 g, to the half gram 38.5; 28.5 s in the middle of 26 to 31; 18.04 g times 0.1.
    const { doubt, ...recipe } = draftedRecipe(best);
    expect(recipe).toEqual({ doseG: 18, yieldG: 38.5, timeMinS: 26, timeMaxS: 31, tempC: 93 });
    expect(doubt.yieldG).toBeCloseTo(1.804, 3);
  });
});
