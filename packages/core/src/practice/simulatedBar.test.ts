import { seededRandom } from '../numbers/index.ts';
import { describe, expect, it } from 'vitest';
import { normalisedTime, usualPolicy } from '../calibration/index.ts';
import { findFirstDropS, lastMassG, readTrace } from '../capture/index.ts';
import { standingFacts, type AnyFact } from '../facts/index.ts';
import { factMaker } from '../facts/testFacts.ts';
import { simulateMorning } from './morning.ts';
import { pullShot, pullShotFast, startShot } from './simulatedShot.ts';
import { simulatedStation } from './simulatedStation.ts';

const recipe = { doseG: 18, yieldG: 36, timeS: { min: 25, max: 30 }, doseToleranceG: 0.3 };
const station = {
  siteId: 'site',
  groupId: 'group',
  grinder: {
    id: 'grinder',
    dial: { stepMarks: 1, finer: 'down' as const, range: { min: 1, max: 60 } },
    seedSetting: 30,
    secondsPerMark: 2.5,
    rateGps: 2,
  },
  recipe,
};
const shotAt = (lnResistance: number, seed: number) =>
  pullShot({ doseG: 18, lnResistance, groupEffect: 0, recipe, random: seededRandom(seed) }, { atG: 34.3, maxS: 120 });

describe('the simulated bar', () => {
  it('meets the middle of the window with the ideal bed, over many shots', () => {
    const sound = Array.from({ length: 200 }, (_, seed) => shotAt(0, seed)).filter((shot) => !shot.channelled);
    const mean = sound.reduce((sum, { timeS, massG }) => {
      const numbers = { doseG: 18, yieldG: lastMassG({ hz: 10, massG }), timeS, firstDropS: null };
      return sum + Math.log(normalisedTime(numbers, recipe).normalisedS) / sound.length;
    }, 0);
    expect(Math.exp(mean)).toBeGreaterThan(26.3);
    expect(Math.exp(mean)).toBeLessThan(28.5);
  });

  it('runs slower through a tighter bed, and shows it at the first drop', () => {
    const [open, tight] = [shotAt(-0.3, 3), shotAt(0.3, 3)];
    expect(tight.timeS).toBeGreaterThan(open.timeS + 8);
    const drop = (massG: number[]): number => findFirstDropS({ hz: 10, massG }) ?? 0;
    expect(drop(tight.massG)).toBeGreaterThan(drop(open.massG));
  });

  it('drips after the stop and then rests', () => {
    const { massG, timeS } = shotAt(0, 5);
    const atStop = massG[Math.round(timeS * 10)]!;
    expect(massG.at(-1)! - atStop).toBeGreaterThan(0.8);
    expect(massG.at(-1)! - massG.at(-10)!).toBeLessThan(0.2);
  });

  it('gives the same shot for the same seed, in whatever order it is looked at', () => {
    const shot = () => startShot({ doseG: 18, lnResistance: 0, groupEffect: 0, recipe, random: seededRandom(9) });
    const times = Array.from({ length: 200 }, (_, i) => i / 10);
    const forwards = times.map((timeS) => shot().cupG(timeS));
    const again = shot();
    expect(times.toReversed().map((timeS) => again.cupG(timeS))).toEqual(forwards.toReversed());
  });

  it('tells the same shot with a trace and without one', () => {
    for (let seed = 1; seed <= 300; seed += 1) {
      const setUp = () => ({ doseG: 18, lnResistance: 0.1, groupEffect: 0, recipe, random: seededRandom(seed) });
      const stop = { atG: 34.3, maxS: 120 };
      const fast = pullShotFast(setUp(), stop);
      const { massG, timeS } = pullShot(setUp(), stop);
      const reading = readTrace({ hz: 10, massG, pumpOffS: timeS });
      expect(Math.abs(timeS - fast.timeS)).toBeLessThan(1e-9);
      expect(Math.abs(reading.yieldG - fast.yieldG)).toBeLessThan(0.25);
      expect(Math.abs((reading.firstDropS ?? 0) - fast.firstDropS)).toBeLessThan(0.5);
    }
  });

  it('blends old grounds into an unpurged shot', () => {
    const make = factMaker();
    const pulled = make('shot', { setting: 30 });
    const moved = make('collarMove', { from: 30, to: 20 });
    const set = (facts: AnyFact[]) =>
      simulatedStation(station, standingFacts(facts)).shotSetUp(18, 0, seededRandom(1)).lnResistance;
    const before = set([pulled]);
    const unpurged = set([pulled, moved]);
    const purged = set([pulled, moved, make('purge', { purgeG: 60 })]);
    expect(unpurged).toBeGreaterThan(before);
    expect(purged).toBeGreaterThan(unpurged + 0.05);
  });

  it('dials a grinder in from seven marks off and locks inside the window', () => {
    const make = factMaker();
    const before = [make('collarMove', { from: 30, to: 37 }, 0)];
    let ids = 0;
    const job = {
      station,
      grinder: {
        id: station.grinder.id,
        dial: station.grinder.dial,
        secondsPerMark: 2.5,
        retentionG: null,
        seedSetting: 30,
      },
      recipe: { ...recipe, recipeVersionId: 'recipe' },
      house: usualPolicy,
      startMs: Date.parse('2031-05-05T06:00:00Z'),
      personId: 'ines',
      newId: () => `id ${String((ids += 1)).padStart(4, '0')}`,
    };
    const facts = simulateMorning(job, before);
    const lock = facts.at(-1);
    expect(lock?.kind).toBe('lock');
    expect(facts.filter((fact) => fact.kind === 'shot').length).toBeLessThanOrEqual(8);
    const set = simulatedStation(station, standingFacts([...before, ...facts])).shotSetUp(
      18,
      Date.parse(lock!.at),
      seededRandom(1),
    );
    // The truth behind the lock: ln of the window's edges about its middle is +-0.091.
    expect(Math.abs(set.lnResistance)).toBeLessThan(0.12);
  });
});
