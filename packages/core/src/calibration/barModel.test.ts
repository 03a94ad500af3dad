import { describe, expect, it } from 'vitest';
import {
  drift,
  groupOf,
  updateWithShot,
  knownOf,
  levelOf,
  newBar,
  responseOf,
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
    expect(weight(Math.log(28))).toBe(1);
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
