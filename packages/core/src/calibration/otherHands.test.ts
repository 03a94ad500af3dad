import { describe, expect, it } from 'vitest';
import { standingFacts } from '../facts/index.ts';
import { factMaker } from '../facts/testFacts.ts';
import { advise } from './advise.ts';
import { emptyMemory, updateWithFacts, type MemoryContext } from './barMemory.ts';
import { benchState, type BenchGrinder } from './benchState.ts';
import { usualPolicy, type AdviceCase, type RecipeTarget } from './adviceCase.ts';
import { aCase, aShot } from './testCases.ts';

describe('what fingers and eyes tell', () => {
  const cold = (change: Partial<AdviceCase>) => advise(aCase({ since: null, standsAt: 30, ...change }));

  it('turns a grinder that nobody has dialled in by its texture, as far as it feels off', () => {
    const marks = (['powder', 'flour', 'fineSalt', 'salt', 'sand'] as const).map((texture) => {
      const { from, setting } = cold({ felt: { setting: 30, texture } });
      return from - setting;
    });
    // Down is finer: powder goes coarser, sand goes far finer, and each more than the one before.
    expect(marks).toEqual(marks.toSorted((a, b) => a - b));
    expect(marks[0]).toBeLessThan(0);
    expect(marks[4]).toBeGreaterThan(8);
    expect(cold({ felt: { setting: 30, texture: 'salt' } }).reasons[0]).toEqual({
      code: 'felt',
      setting: 30,
      texture: 'salt',
    });
  });

  it('lets the first shot speak over the fingers', () => {
    const after = cold({ felt: { setting: 30, texture: 'sand' }, shots: [aShot({ timeS: 27 })] });
    expect(after.predicted.timeS).toBeGreaterThan(25);
    expect(after.action).toBe('repeat');
  });

  it('begins where the house begins, where nothing is felt', () => {
    expect(cold({ startAt: 20 })).toMatchObject({ action: 'move', setting: 20 });
    expect(cold({})).toMatchObject({ action: 'repeat', setting: 30 });
  });

  it('says first drops before the time, of a grinder that never held', () => {
    const recipe = { ...aCase().recipe, firstDropS: { min: 4, max: 8 } };
    const shots = [aShot({ timeS: 21, firstDropS: 2.2 })];
    expect(
      cold({ recipe, shots })
        .reasons.map(({ code }) => code)
        .slice(0, 2),
    ).toEqual(['firstDrop', 'ran']);
    expect(advise(aCase({ recipe, shots })).reasons[0]?.code).toBe('ran');
  });

  it.each(['ring', 'oneSide', 'jets', 'paleEarly'] as const)(
    'a stream that shows %s leads to its own next step',
    (flaw) => {
      const fault = flaw === 'ring' || flaw === 'oneSide' ? ('prep' as const) : ('channel' as const);
      const { action, reasons } = advise(aCase({ shots: [aShot({ timeS: 17, fault, flaw })] }));
      expect(action).toBe('repeat');
      expect(reasons).toContainEqual({ code: 'streamSaid', flaw });
    },
  );
});

describe('how a house answers a small miss, and how far it turns', () => {
  const policy = (change: Partial<AdviceCase['house']>) => ({ ...usualPolicy, ...change });
  const fast = (house: AdviceCase['house'], times: number[]) =>
    advise(aCase({ house, secondsPerMark: 2, shots: times.map((timeS) => aShot({ timeS })) }));

  it('tamps once before the collar, and then turns it', () => {
    expect(fast(policy({}), [22.5, 22.4, 22.6]).action).toBe('move');
    const tamped = fast(policy({ smallMiss: 'tamp' }), [23]);
    expect(tamped).toMatchObject({ action: 'repeat', because: 'smallMiss' });
    expect(tamped.reasons.some(({ code }) => code === 'trimByTamp')).toBe(true);
    expect(fast(policy({ smallMiss: 'tamp' }), [22.5, 22.4, 22.6]).action).toBe('move');
  });

  it('doses a little more once, and judges that dose as what was asked for', () => {
    const dosed = fast(policy({ smallMiss: 'dose' }), [23]);
    expect(dosed.action).toBe('repeat');
    expect(dosed.doseG).toBeGreaterThan(18);
    const then = advise(
      aCase({
        house: policy({ smallMiss: 'dose' }),
        secondsPerMark: 2,
        shots: [aShot({ timeS: 23 }), aShot({ timeS: 26, doseG: dosed.doseG ?? 18 })],
      }),
    );
    expect(then.judgement).toMatchObject({ kind: 'sound', missS: 0 });
  });

  it('turns no further at once than the house does', () => {
    const at = Date.parse('2031-05-04T06:00:00Z');
    const fact = factMaker(new Date(at).toISOString());
    const facts = standingFacts([fact('shot', { timeS: 12 }, 1)]);
    const marks = (moveCap: 'computed' | 'three' | 'one'): number => {
      const { adviceCase } = benchState(facts, grinder, double, policy({ moveCap }), at + 120_000, null);
      return advise(adviceCase).marks;
    };
    expect(marks('computed')).toBeGreaterThan(4);
    expect(marks('three')).toBe(3);
    expect(marks('one')).toBe(1);
  });
});

const grinder: BenchGrinder = {
  id: 'grinder',
  dial: { stepMarks: 1, finer: 'down', range: { min: 1, max: 60 } },
  secondsPerMark: 2.5,
  retentionG: null,
  seedSetting: 30,
};
const double: RecipeTarget = {
  recipeId: 'double',
  doseG: 18,
  yieldG: 36,
  timeS: { min: 25, max: 30 },
  doseToleranceG: 0.3,
};
const single: RecipeTarget = {
  recipeId: 'single',
  doseG: 9,
  yieldG: 21,
  timeS: { min: 19, max: 24 },
  doseToleranceG: 0.3,
};

describe('single and double on one collar', () => {
  const start = Date.parse('2031-05-04T06:00:00Z');
  const context: MemoryContext = {
    grinders: new Map([[grinder.id, grinder]]),
    recipeOf: (id) => ({ double, single })[id] ?? null,
  };
  const fact = factMaker(new Date(start).toISOString());
  const pulledDouble = (timeS: number, minute: number, setting = 30) =>
    fact('shot', { recipeVersionId: 'double', timeS, setting }, minute);
  const pulledSingle = (timeS: number, minute: number, setting = 30) =>
    fact('shot', { recipeVersionId: 'single', timeS, setting, doseG: 9, yieldG: 21, firstDropS: 5 }, minute);
  const seenBy = (recipe: RecipeTarget, facts: ReturnType<typeof fact>[]) => {
    const standing = standingFacts(facts);
    const otherRecipes = new Set([recipe.recipeId === 'single' ? 'double' : 'single']);
    const memory = updateWithFacts(emptyMemory, standing, context);
    return benchState(standing, { ...grinder, otherRecipes }, recipe, usualPolicy, start + 3_600_000, memory);
  };

  it('judges each by its own window and its own shots', () => {
    const facts = [pulledDouble(27.4, 1), pulledSingle(15, 2)];
    expect(seenBy(double, facts).shots).toHaveLength(1);
    expect(advise(seenBy(double, facts).adviceCase).judgement).toMatchObject({ kind: 'sound', missS: 0 });
    expect(advise(seenBy(single, facts).adviceCase).judgement).toMatchObject({ kind: 'sound' });
    expect(advise(seenBy(single, facts).adviceCase).action).toBe('move');
  });

  it('teaches the one by the other: a collar that was set by doubles is about right for the single', () => {
    const facts = [27.2, 27.6, 27.3].map((timeS, i) => pulledDouble(timeS, i + 1));
    const { predicted } = advise(seenBy(single, facts).adviceCase);
    expect(predicted.timeS).toBeGreaterThan(20);
    expect(predicted.timeS).toBeLessThan(23);
    // Another basket is another bed: nobody is sure of it.
    expect(predicted.inWindow).toBeLessThan(0.9);
    const slow = [33, 33.4, 33.1].map((timeS, i) => pulledDouble(timeS, i + 1));
    expect(advise(seenBy(single, slow).adviceCase).predicted.timeS).toBeGreaterThan(predicted.timeS + 2);
  });

  it('learns what the single adds, and keeps it when the collar moves', () => {
    const taught = [
      pulledDouble(27.4, 1),
      ...[26, 26.4, 26.1, 26.3].map((timeS, i) => pulledSingle(timeS, i + 2)),
      fact('collarMove', { from: 30, to: 32, advisedTo: 32 }, 10),
      fact('purge', { purgeG: 30 }, 11),
      pulledDouble(23, 12, 32),
    ];
    const { predicted } = advise(seenBy(single, taught).adviceCase);
    // The single ran slow by a fifth where the double was right; two marks coarser both are faster.
    expect(predicted.timeS).toBeGreaterThan(20.5);
    expect(predicted.timeS).toBeLessThan(24.5);
  });

  it('holds where it was locked for the double, with nothing said of the single’s seconds', () => {
    const lock = fact('lock', { recipeVersionId: 'double', setting: 30 }, 5);
    const { adviceCase, lastLock } = seenBy(single, [pulledDouble(27.4, 1), lock]);
    expect(lastLock?.body.setting).toBe(30);
    expect(adviceCase.held?.timeS).toBeCloseTo(Math.sqrt(19 * 24), 6);
  });

  it('finds the grind time of either from the same doses, and hears nothing from one that nobody weighed', () => {
    const dose = fact('dose', { doseG: 18, grindTimeS: 9, setting: 30 }, 1);
    const state = seenBy(double, [dose]);
    expect(state.grindTimeS(18, 30)).toBe(9);
    expect(state.grindTimeS(9, 30)).toBeCloseTo(4.7, 1);
    const byTime = fact('dose', { doseG: 18, grindTimeS: 20, setting: 30, way: 'timed' }, 2);
    expect(seenBy(double, [dose, byTime]).grindTimeS(18, 30)).toBe(9);
    const topped = fact('dose', { doseG: 18, firstPartG: 15, grindTimeS: 9, setting: 30 }, 2);
    expect(seenBy(double, [topped]).grindTimeS(15, 30)).toBe(9);
  });

  it('takes clumps for a purge: the finer setting has arrived', () => {
    const moved = [
      pulledDouble(20, 1),
      fact('collarMove', { from: 30, to: 28, advisedTo: 28 }, 2),
      fact('seen', { setting: 28, sign: 'clumping' }, 3),
    ];
    expect(seenBy(double, moved).adviceCase.purgedG).toBeGreaterThan(30);
    expect(advise(seenBy(double, moved).adviceCase).purgeG).toBe(0);
  });
});
