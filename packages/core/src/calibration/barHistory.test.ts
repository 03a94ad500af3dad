import { describe, expect, it } from 'vitest';
import type { AnyFact } from '../facts/index.ts';
import { factMaker } from '../facts/testFacts.ts';
import { usualPolicy } from './adviceCase.ts';
import { advise } from './advise.ts';
import { rememberBar, type GrinderInBar, type PastShot } from './barHistory.ts';
import { groupOf, knownOf, levelOf, responseOf } from './barModel.ts';
import { benchState, rememberedFor } from './benchCase.ts';
import { aCase, aShot } from './testCases.ts';

const { recipe } = aCase();
const grinder = (id: string): GrinderInBar => ({
  id,
  dial: { stepMarks: 1, finer: 'down', range: { min: 1, max: 60 } },
  recipe,
  secondsPerMark: 2.5,
  retentionG: null,
  seedSetting: 30,
});
const grinders = [grinder('house'), grinder('guest')];
const past = (minute: number, change: Partial<PastShot>): PastShot => ({
  ...aShot(),
  grinderId: 'house',
  atMs: minute * 60_000,
  ...change,
});

describe('what the bar remembers', () => {
  it('learns what a mark is worth on one grinder, and leaves the other as believed', () => {
    const shots = [30, 28, 26, 30, 28, 26].map((setting, i) =>
      past(i, { setting, purgedG: 30, timeS: 27 * Math.exp(0.15 * (30 - setting)) }),
    );
    const bar = rememberBar(grinders, [...shots, past(7, { grinderId: 'guest' })]);
    expect(knownOf(bar, responseOf('house'))?.mean).toBeGreaterThan(0.13);
    expect(knownOf(bar, responseOf('guest'))?.mean).toBeCloseTo(2.5 / Math.sqrt(750), 2);
  });

  it('doubts a grinder more the longer nobody pulled it, and a group too', () => {
    const shots = [past(0, { group: '1' }), past(2, { group: '1' })];
    const soon = rememberBar(grinders, [...shots, past(4, { group: '1' })]);
    const late = rememberBar(grinders, [...shots, past(4 + 14 * 1_440, { group: '1' })]);
    for (const name of [levelOf('house'), groupOf('1')]) {
      expect(knownOf(late, name)?.sd).toBeGreaterThan(knownOf(soon, name)?.sd ?? Infinity);
    }
  });

  it('leaves out grinders that are no longer there', () => {
    expect(rememberBar(grinders, [past(0, { grinderId: 'sold' })]).belief.names).toEqual(['dose']);
  });
});

describe('the memory of a bench', () => {
  const make = factMaker();
  const facts: AnyFact[] = [
    make('shot', { setting: 30, timeS: 22 }),
    make('collarMove', { from: 30, to: 28 }),
    make('purge', { purgeG: 25 }),
    make('shot', { setting: 28, timeS: 32 }),
    make('lock', { setting: 28, doseG: 17.6 }),
    make('shot', { setting: 28, timeS: 24 }),
  ].map((fact) => ({ ...fact, grinderId: 'house' }));

  it('holds all before the last lock, and leaves what came after to the bench', () => {
    const remembered = rememberedFor('house', grinders, facts);
    const before = rememberedFor('house', grinders, facts.slice(0, 5));
    expect(remembered?.bar.belief.mean).toEqual(before?.bar.belief.mean);
    // Two marks made ten seconds: more than the believed 2.5 s each.
    expect(knownOf(remembered!.bar, responseOf('house'))!.mean).toBeGreaterThan(2.5 / Math.sqrt(750));
    expect(rememberedFor('nobody', grinders, facts)).toBeNull();
  });

  it('makes the next move smaller on a grinder that was found to answer more', () => {
    const bench = (remembered: ReturnType<typeof rememberedFor>) => {
      const nowMs = Date.parse(facts.at(-1)!.at);
      return benchState(facts, grinder('house'), recipe, usualPolicy, nowMs, remembered);
    };
    const knowing = bench(rememberedFor('house', grinders, facts));
    expect(knowing.adviceCase.trimG).toBeCloseTo(-0.4, 10);
    const [with_, without] = [advise(knowing.adviceCase), advise(bench(null).adviceCase)];
    expect(with_.learned.line.response).toBeGreaterThan(1.1 * without.learned.line.response);
    expect(with_.marks).toBeLessThanOrEqual(without.marks);
  });

  it('keeps a trimmed dose over the night, until a shot speaks', () => {
    const locked = facts.slice(0, 5);
    const state = benchState(locked, grinder('house'), recipe, usualPolicy, Date.parse(locked.at(-1)!.at));
    expect(advise(state.adviceCase)).toMatchObject({ action: 'repeat', doseG: 17.6, setting: 28 });
  });
});
