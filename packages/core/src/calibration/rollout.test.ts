import { seededRandom } from '../numbers/index.ts';
import { describe, expect, it } from 'vitest';
import { advise, alternatives, bySchool } from './index.ts';
import { aCase, aShot } from './testCases.ts';
import { rollout } from './rollout.ts';

const RUNS = 60;
const off = aCase({ shots: [aShot({ timeS: 21 })] });
const ahead = (input: typeof off, choice: { setting: number; purgeG: number }) =>
  rollout(input, { ...choice, doseG: null }, RUNS, seededRandom(4));

describe('what a choice leads to', () => {
  it('is the same for the same chance', () => {
    const choice = { setting: 28, purgeG: 8.5 };
    expect(ahead(off, choice)).toEqual(ahead(off, choice));
  });

  it('costs least where the engine sends the collar', () => {
    const { setting, purgeG } = advise(off);
    const advised = ahead(off, { setting, purgeG });
    expect(advised.shots).toBeGreaterThanOrEqual(1);
    expect(advised.shots).toBeLessThan(ahead(off, { setting: 30, purgeG: 0 }).shots);
    expect(advised.shots).toBeLessThan(ahead(off, { setting: 33, purgeG }).shots);
    // Every shot weighs its dose, every move its purge.
    expect(advised.grams).toBeGreaterThan(17 * advised.shots);
    expect(advised.lockedAtOnce).toBeGreaterThan(0.2);
  });

  it('needs hardly more than a shot where all but one shot is known: one that falls outside is not signed for', () => {
    const sure = aCase({ shots: [aShot({ timeS: 27.2 }), aShot({ timeS: 27.5 }), aShot({ timeS: 27.3 })] });
    const foreseen = ahead(sure, { setting: 30, purgeG: 0 });
    expect(foreseen.shots).toBeLessThan(1.5);
    expect(foreseen.lockedAtOnce).toBeGreaterThan(0.75);
  });
});

describe('what else could be done', () => {
  it('lists the settings about the collar and the advice, the advised one marked, purges where it moves', () => {
    const advice = advise(off);
    const choices = alternatives(off, advice);
    const settings = choices.map(({ expected }) => expected.setting);
    expect(settings).toEqual([26, 27, 28, 29, 30, 31, 32]);
    expect(choices.filter(({ advised }) => advised).map(({ expected }) => expected)).toEqual([advice.predicted]);
    expect(choices.find(({ expected }) => expected.setting === 30)?.purgeG).toBe(0);
    expect(choices.find(({ expected }) => expected.setting === 29)?.purgeG).toBeGreaterThan(5);
  });

  it('tells what each school of good enough would do', () => {
    const rules = bySchool(aCase({ since: null, shots: [aShot({ timeS: 29.5 })] }));
    const action = (rule: string) => rules.find((one) => one.rule === rule)?.advice.action;
    expect(action('firstGood')).toBe('lock');
    expect(action('oneRepeat')).not.toBe('lock');
    expect(action('meanOfThree')).not.toBe('lock');
  });
});
