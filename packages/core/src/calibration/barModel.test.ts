import { describe, expect, it } from 'vitest';
import {
  drift,
  groupOf,
  updateWithShot,
  knownOf,
  levelOf,
  newBar,
  responseOf,
  shotVarianceOf,
  withGrinder,
  withGroup,
  type BarModel,
  type BarShot,
} from './barModel.ts';
import { engineDefaults } from './engineDefaults.ts';
import { varianceOf } from './shotNoise.ts';
import { pseudoRandom } from './testCases.ts';

const start = { level: Math.log(27.4), levelSd: 0.1, response: 0.09, responseSd: 0.027 };
const bar = (): BarModel =>
  withGroup(withGroup(withGrinder(withGrinder(newBar(), 'house', start), 'guest', start), '1'), '2');
const shot = (change: Partial<BarShot>): BarShot => ({
  grinder: 'house',
  group: '1',
  x: 0,
  lnTimeS: Math.log(27.4),
  lnDose: 0,
  addedVariance: 0,
  choked: false,
  ...change,
});
const hear = (from: BarModel, shots: Partial<BarShot>[]): BarModel =>
  shots.reduce((model, change) => updateWithShot(model, shot(change)).bar, from);

describe('the bar model', () => {
  it('lays a slowness on the group when every grinder is slow there', () => {
    const slow = Math.log(30.5);
    const heard = hear(bar(), [
      { grinder: 'house', group: '1' },
      { grinder: 'guest', group: '1' },
      { grinder: 'house', group: '2', lnTimeS: slow },
      { grinder: 'guest', group: '2', lnTimeS: slow },
      { grinder: 'house', group: '1' },
      { grinder: 'guest', group: '2', lnTimeS: slow },
    ]);
    const [first, second] = [knownOf(heard, groupOf('1')), knownOf(heard, groupOf('2'))];
    expect((second?.mean ?? 0) - (first?.mean ?? 0)).toBeGreaterThan(0.03);
    expect(second?.sd).toBeLessThan(engineDefaults.groupSd);
  });

  it('learns the dose exponent from doses that differ', () => {
    const pulled = Array.from({ length: 60 }, (_, i) => {
      const lnDose = i % 2 ? 0.04 : -0.04;
      return { lnDose, lnTimeS: Math.log(27.4) + 3 * lnDose };
    });
    const dose = knownOf(hear(bar(), pulled), 'dose');
    expect(dose?.mean).toBeGreaterThan(2.6);
    expect(dose?.sd).toBeLessThan(engineDefaults.doseExponentSd);
  });

  it('learns how far two shots of one setting differ, upwards and downwards', () => {
    const random = pseudoRandom(3);
    const learnt = (sd: number): number => {
      const pulled = Array.from({ length: 200 }, () => {
        // Sum of twelve even draws less six: nearly N(0, 1).
        const z = Array.from({ length: 12 }, random).reduce((sum, draw) => sum + draw, -6);
        return { lnTimeS: Math.log(27.4) + sd * z };
      });
      return Math.sqrt(varianceOf(hear(bar(), pulled).noise));
    };
    expect(learnt(0.03)).toBeLessThan(0.037);
    expect(learnt(0.03)).toBeGreaterThan(0.026);
    expect(learnt(0.08)).toBeGreaterThan(0.065);
    expect(learnt(0.08)).toBeLessThan(0.09);
  });

  it('trusts a shot that surprises less, a fast one least', () => {
    const weight = (lnTimeS: number): number => updateWithShot(bar(), shot({ lnTimeS })).weight;
    expect(weight(Math.log(28))).toBeGreaterThanOrEqual(1);
    const [fast, slow] = [weight(Math.log(27.4) - 0.6), weight(Math.log(27.4) + 0.6)];
    expect(slow).toBeLessThan(0.6);
    expect(fast).toBeLessThan(slow);
  });

  it('shares what age and humidity do between grinders, once it is told of them', () => {
    const damp = { ageDays: 0, humidityPct: 20 };
    const heard = hear(
      bar(),
      Array.from({ length: 20 }, (_, i) => ({
        grinder: i % 2 ? 'house' : 'guest',
        ...(i % 4 < 2 ? { surroundings: damp, lnTimeS: Math.log(27.4) + 0.12 } : {}),
      })),
    );
    expect(knownOf(bar(), 'humidity')).toBeNull();
    expect(knownOf(heard, 'humidity')?.mean).toBeCloseTo(0.006, 2);
    expect(knownOf(heard, 'humidity')?.mean).toBeGreaterThan(0.0045);
  });

  it('doubts only the grinder that time has passed over', () => {
    const later = drift(bar(), 'house', 0.01, 0.02 ** 2);
    expect(knownOf(later, levelOf('house'))?.sd).toBeCloseTo(Math.hypot(0.1, 0.1), 12);
    expect(knownOf(later, levelOf('guest'))?.sd).toBeCloseTo(0.1, 12);
    expect(knownOf(later, responseOf('house'))?.sd).toBeCloseTo(Math.hypot(0.027, 0.02 * 0.09), 12);
  });
});

describe('hands', () => {
  const random = pseudoRandom(11);
  const pulls = (by: string, sd: number, count: number): Partial<BarShot>[] =>
    Array.from({ length: count }, () => ({ by, lnTimeS: Math.log(27.4) + sd * Math.sqrt(12) * (random() - 0.5) }));
  const sdOf = (model: BarModel, by: string): number => Math.sqrt(shotVarianceOf(model, by));

  it('are told apart: each person’s shots scatter by their own', () => {
    const heard = hear(bar(), [...pulls('even', 0.03, 80), ...pulls('uneven', 0.09, 80)]);
    expect(sdOf(heard, 'even')).toBeLessThan(0.045);
    expect(sdOf(heard, 'uneven')).toBeGreaterThan(0.07);
    // Somebody new is taken for the house.
    expect(shotVarianceOf(heard, 'new')).toBe(varianceOf(heard.noise));
  });

  it('are not taught by three shots: a new person stays near the house', () => {
    const house = hear(bar(), pulls('usual', 0.055, 60));
    const heard = hear(house, pulls('new', 0.01, 3));
    expect(sdOf(heard, 'new')).toBeGreaterThan(0.85 * sdOf(house, 'new'));
  });

  it('say how much their shot says: an uneven hand’s moves the bar less', () => {
    const heard = hear(bar(), [...pulls('even', 0.03, 80), ...pulls('uneven', 0.09, 80)]);
    const wandered = drift(heard, 'house', 0.1 ** 2);
    const level = (by: string) => knownOf(hear(wandered, [{ by, lnTimeS: Math.log(30) }]), levelOf('house'))?.mean ?? 0;
    expect(level('even')).toBeGreaterThan(level('uneven'));
  });
});
