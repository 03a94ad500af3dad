import { seededRandom } from '../numbers/index.ts';
import { describe, expect, it } from 'vitest';
import { readTrace } from '../capture/index.ts';
import { aCase, aShot } from '../calibration/testCases.ts';
import { runMorning, type WayOfWorking } from './closedLoop.ts';
import { drawStation } from './drawnBar.ts';
import { drawTrace } from './drawnTrace.ts';
import { diagnoseByEngine, diagnoseByHand, drawFaultyBar } from './faultyBar.ts';
import { cupG, finalG, timeToCupS, timeToFinalS } from './puck.ts';
import { lnOfDose, lnOfGroup, puckOf, trueTimeS } from './resistance.ts';
import { runTwoWeeks } from './secondWeek.ts';
import { serveDay, servedByEngine, servedByHand } from './servedDay.ts';
import { drawDay } from './surroundings.ts';
import { byAllKnowing, byEngine, byMeanOfThree, byRuleOfThumb } from './waysOfWorking.ts';
import { withoutScale } from './withoutScale.ts';

const recipe = { doseG: 18, yieldG: 36, timeS: { min: 25, max: 30 } };
const mean = (values: readonly number[]): number => values.reduce((sum, value) => sum + value, 0) / values.length;

describe('the physics of a simulated bed', () => {
  it('agrees with stepping through its equations in small steps', () => {
    const puck = puckOf(recipe, 0.15, { afterS: 7, flow: 1.6 });
    const DT_S = 0.0005;
    let [through, cup] = [0, 0];
    const STOP_S = 24;
    for (let i = 0; i * DT_S < 30; i += 1) {
      const t = i * DT_S;
      const flowing = t >= puck.soakS && t < STOP_S;
      const channel = t >= puck.soakS + puck.channelAfterS ? puck.channelFlow : 1;
      const flow = flowing ? puck.flowGps * channel * (1 + through / puck.washOutG) : 0;
      cup += ((through - cup) / puck.dripS) * DT_S;
      through += flow * DT_S;
      if (i % 2000 === 0) expect(Math.abs(cup - cupG(puck, t, STOP_S))).toBeLessThan(0.02);
    }
    expect(Math.abs(finalG(puck, STOP_S) - through)).toBeLessThan(0.02);
  });

  it('finds the moment of a mass as the mass finds the moment', () => {
    for (const afterS of [0.5, 6, 40]) {
      const puck = puckOf(recipe, -0.1, { afterS, flow: 1.8 });
      for (const grams of [0.05, 5, 20, 34]) {
        expect(cupG(puck, timeToCupS(puck, grams, 200), Infinity)).toBeCloseTo(grams, 5);
        expect(finalG(puck, timeToFinalS(puck, grams, 200))).toBeCloseTo(grams, 5);
      }
    }
    expect(timeToCupS(puckOf(recipe, 3), 36, 60)).toBe(Infinity);
  });

  it('lands in the middle of the window at ln resistance 0, and leaves it either way', () => {
    expect(trueTimeS(recipe, 0)).toBeCloseTo(Math.sqrt(25 * 30), 6);
    expect(trueTimeS(recipe, 0.2)).toBeGreaterThan(30);
    expect(trueTimeS(recipe, -0.2)).toBeLessThan(25);
    expect(trueTimeS(recipe, 5)).toBe(Infinity);
  });

  it('resists more with dose by a power near 2, and with cold, low pressure and a dirty screen', () => {
    expect(lnOfDose(18.18, 18) / Math.log(1.01)).toBeGreaterThan(1.8);
    expect(lnOfDose(18.18, 18) / Math.log(1.01)).toBeLessThan(2.7);
    expect(lnOfDose(18, 18)).toBe(0);
    const nominal = { tempC: 93, pressureBar: 9, lnScreen: 0 };
    expect(lnOfGroup(nominal)).toBe(0);
    // By hand: 3 degC colder is 3.3 % more viscous.
    expect(lnOfGroup({ ...nominal, tempC: 90 })).toBeCloseTo(0.033, 10);
    // By hand: -0.5 ln(8 / 9) = 0.0589
    expect(lnOfGroup({ ...nominal, pressureBar: 8 })).toBeCloseTo(0.0589, 4);
  });

  it('draws days that wander by a few percent, with their bags', () => {
    const days = Array.from({ length: 200 }, (_, seed) => drawDay(seededRandom(seed + 1), 10));
    const evenings = days.map((day) => day.at(9.9));
    expect(Math.sqrt(mean(evenings.map((off) => off ** 2)))).toBeGreaterThan(0.03);
    expect(Math.sqrt(mean(evenings.map((off) => off ** 2)))).toBeLessThan(0.15);
    expect(days.every((day) => day.bagHours.length === 2)).toBe(true);
  });
});

const MORNINGS = 200;
const run = (way: WayOfWorking) => {
  const results = Array.from({ length: MORNINGS }, (_, seed) => runMorning(drawStation(seed + 1), way));
  const locked = results.filter((result) => result.locked);
  return {
    shots: mean(results.map(({ shots }) => shots)),
    grams: mean(results.map(({ grams }) => grams)),
    lockedShare: locked.length / MORNINGS,
    insideShare: mean(locked.map(({ trulyInside }) => Number(trulyInside))),
  };
};

describe('a morning in closed loop', () => {
  it('is the same for the same seed', () => {
    expect(runMorning(drawStation(11), byEngine)).toEqual(runMorning(drawStation(11), byEngine));
  });

  it('takes the engine half the shots and grams of the ways by hand, and leaves the bar right', () => {
    const [engine, thumb, three, bound] = [run(byEngine), run(byRuleOfThumb), run(byMeanOfThree), run(byAllKnowing)];
    expect(engine.shots).toBeLessThan(0.55 * thumb.shots);
    expect(engine.grams).toBeLessThan(0.5 * thumb.grams);
    expect(engine.shots).toBeLessThan(0.6 * three.shots);
    expect(engine.insideShare).toBeGreaterThan(0.94);
    expect(engine.lockedShare).toBe(1);
    // Nobody does better than the one who knows.
    expect(bound.shots).toBeLessThan(engine.shots);
    expect(bound.insideShare).toBeGreaterThanOrEqual(engine.insideShare);
  });

  it('spends less in the second week, with what it remembers', () => {
    const weeks = Array.from({ length: 60 }, (_, seed) => runTwoWeeks(seed + 1));
    const shots = (of: 'first' | 'second'): number => mean(weeks.map((week) => week[of].shots));
    expect(shots('second')).toBeLessThan(shots('first'));
  });
  it('comes from cold to a lock without a scale, and is about as right as it says', () => {
    const mornings = Array.from({ length: 150 }, (_, i) =>
      runMorning(withoutScale(drawStation(i + 1), i + 1), byEngine),
    );
    expect(mornings.every(({ locked }) => locked)).toBe(true);
    const right = mean(mornings.map(({ trulyInside }) => Number(trulyInside)));
    expect(right).toBeGreaterThan(0.88);
    expect(Math.abs(mean(mornings.map(({ statedChance }) => statedChance ?? 0)) - right)).toBeLessThan(0.06);
  });
});

describe('a served day', () => {
  const day = (way: ReturnType<typeof servedByEngine>) =>
    Array.from({ length: 12 }, (_, seed) =>
      serveDay(drawStation(seed + 1), [], { setting: drawStation(seed + 1).startSetting, doseG: null }, way),
    );

  it('keeps more of it inside, with fewer timed shots, than a check every half hour', () => {
    const [engine, hand] = [day(servedByEngine()), day(servedByHand)];
    expect(mean(engine.map(({ insideShare }) => insideShare))).toBeGreaterThan(
      mean(hand.map(({ insideShare }) => insideShare)),
    );
    expect(mean(engine.map(({ checks }) => checks))).toBeLessThan(mean(hand.map(({ checks }) => checks)));
  });
});

describe('faults on a bar of three grinders and three groups', () => {
  it('names them more surely than ten shots by hand, and seldom cries wolf', () => {
    const BARS = 40;
    const named = (faulty: boolean, way: typeof diagnoseByHand) =>
      Array.from({ length: BARS }, (_, seed) => {
        const bar = drawFaultyBar(seed + 1, faulty);
        const { finding, shots } = way(bar);
        const fault = finding.kind === 'group' || finding.kind === 'grinder';
        return { fault, right: fault && finding.kind === bar.fault?.kind && finding.id === bar.fault.id, shots };
      });
    const engine = named(true, diagnoseByEngine);
    expect(engine.filter(({ fault }) => fault).length).toBeGreaterThan(0.5 * BARS);
    expect(engine.filter(({ fault, right }) => fault && !right).length).toBeLessThan(0.1 * BARS);
    expect(Math.max(...engine.map(({ shots }) => shots))).toBeLessThanOrEqual(12);
    const alarms = (way: typeof diagnoseByHand): number => named(false, way).filter(({ fault }) => fault).length;
    expect(alarms(diagnoseByEngine)).toBeLessThan(alarms(diagnoseByHand));
  });
});

describe('drawn traces', () => {
  it('are read for what was true of them', () => {
    const drawn = Array.from({ length: 60 }, (_, seed) => drawTrace(seed + 1, seed % 2 === 0));
    const readings = drawn.map((truth) => ({ truth, reading: readTrace(truth.trace) }));
    const near = readings.filter(
      ({ truth, reading }) => Math.abs((reading.firstDropS ?? 99) - truth.firstDropS) <= 0.3,
    );
    expect(near.length).toBeGreaterThan(0.9 * drawn.length);
    const seen = ({ reading }: (typeof readings)[number]): boolean =>
      reading.signs.some(({ kind }) => kind === 'channel');
    const [channelled, sound] = [true, false].map((is) => readings.filter(({ truth }) => truth.channel === is));
    expect((channelled ?? []).filter(seen).length).toBeGreaterThan(0.7 * (channelled?.length ?? 0));
    expect((sound ?? []).filter(seen).length).toBeLessThan(3);
  });
});

describe('the rule of thumb', () => {
  const station = drawStation(1);
  const after = (shots: Parameters<typeof aShot>[0][]) => byRuleOfThumb(aCase({ shots: shots.map(aShot) }), station);

  it('moves by the miss over seconds-per-mark, with a purge', () => {
    // 27.4 - 20 = 7.4 s over 2.5 s a mark: three marks finer.
    expect(after([{ timeS: 20 }])).toMatchObject({ action: 'move', setting: 27, purgeG: 20 });
    expect(after([{ timeS: 35 }])).toMatchObject({ setting: 33 });
    expect(after([{ timeS: 24.9 }])).toMatchObject({ setting: 29 });
  });

  it('goes half way back after an overshoot', () => {
    expect(after([{ timeS: 18 }, { setting: 26, timeS: 40 }])).toMatchObject({ action: 'move', setting: 28 });
  });

  it('locks after two repeats inside, and a channel is no repeat', () => {
    expect(after([{ timeS: 27 }, { timeS: 28 }]).action).toBe('repeat');
    expect(after([{ timeS: 27 }, { timeS: 28 }, { timeS: 26 }]).action).toBe('lock');
    expect(after([{ timeS: 27 }, { timeS: 14, fault: 'channel' }]).action).toBe('repeat');
  });
});

describe('the mean of three', () => {
  it('decides at every third shot only', () => {
    const after = (times: number[]) =>
      byMeanOfThree(aCase({ shots: times.map((timeS) => aShot({ timeS })) }), drawStation(1));
    expect(after([20, 20]).action).toBe('repeat');
    expect(after([24, 27, 29]).action).toBe('lock');
    expect(after([20, 21, 19])).toMatchObject({ action: 'move', setting: 27 });
  });
});
