import { describe, expect, it } from 'vitest';
import { usualPolicy, type AdviceCase, type CaseShot } from '../calibration/index.ts';
import { newBar, withGrinder } from '../calibration/barModel.ts';
import { normalisedTime } from '../calibration/normalisedTime.ts';
import { aCase, aShot, pseudoRandom } from '../calibration/testCases.ts';
import { gaussian, MS_PER_HOUR, MS_PER_MINUTE, seededRandom } from '../numbers/index.ts';
import { levelBank } from './levelBank.ts';
import type { Service } from './outlook.ts';
import { serve } from './serve.ts';

/** 18 g in, 36 g out, 25-30 s; a mark is worth 2.5 s, smaller is finer. The morning locked at 30 at six. */
const six = Date.parse('2031-05-04T06:00:00Z');
const service: Service = { endsAtMs: six + 10 * MS_PER_HOUR, cupsPerHour: 40 };
type Timed = [hours: number, timeS: number, more?: Partial<CaseShot>];

/** A day so far: shots by the hour since the lock; now is when the last one was timed, or so many hours after six. */
function day(timed: readonly Timed[], change: Partial<AdviceCase> = {}, nowH = timed.at(-1)?.[0] ?? 0): AdviceCase {
  const morning = [27, 27.4].map((timeS, i) => aShot({ timeS, atMs: six - (8 - 4 * i) * MS_PER_MINUTE }));
  const shots = timed.map(([hours, timeS, more]) => aShot({ timeS, atMs: six + hours * MS_PER_HOUR, ...more }));
  const all = [...morning, ...shots];
  const standsAt = all.at(-1)?.setting ?? 30;
  return aCase({ shots: all, nowMs: six + nowH * MS_PER_HOUR, standsAt, ...change });
}
const noTrim = { house: { ...aCase().house, trim: 'none' as const } };
const ask = (input: AdviceCase, more: Partial<Service> = {}) => serve(input, { ...service, ...more });

describe('a served day', () => {
  it('leaves what stands in the middle, and looks again at the house’s ceiling at the latest', () => {
    const held: [number, number][] = [
      [1, 27.3],
      [2, 27.2],
    ];
    const { action, setting, outside } = ask(day(held));
    expect([action, setting]).toEqual(['leave', 30]);
    expect(outside).toBeLessThan(0.05);
    const lookAfterMin = (longestCheckMin: number): number =>
      ask(day(held, { house: { ...usualPolicy, longestCheckMin } })).nextCheckMin;
    expect(lookAfterMin(45)).toBe(45);
    // By its doubt where the house waits for that.
    expect(lookAfterMin(240)).toBeGreaterThan(60);
    expect(lookAfterMin(240)).toBeLessThan(120);
  });

  it('changes nothing that is as good as surely inside, however far it is from the middle', () => {
    for (const timeS of [26.4, 26.9, 27.9, 28.4]) {
      const { action, setting, here, outside } = ask(
        day([0.2, 0.4, 0.6, 0.8, 1].map((hours): Timed => [hours, timeS])),
      );
      if (here.outside < 0.05) expect([timeS, action, setting, outside]).toEqual([timeS, 'leave', 30, here.outside]);
      else expect(here.outside).toBeGreaterThanOrEqual(0.05);
    }
    const centred = ask(day([0.2, 0.4, 0.6, 0.8, 1].map((hours): Timed => [hours, 27.9])));
    expect(centred.here.outside).toBeLessThan(0.05);
  });

  it('turns and weighs nothing otherwise of what taste asked for, before a shot has shown it', () => {
    const slow = day([
      [1, 30.2],
      [1.2, 30.4],
    ]);
    expect(ask(slow).action).toBe('move');
    expect(ask({ ...slow, untried: true })).toMatchObject({ action: 'leave', setting: 30, doseG: null });
    const choked = day([[1, 60, { yieldG: 6 }]]);
    expect(ask({ ...choked, untried: true }).action).toBe('leave');
  });

  it('turns nothing for one slow shot when the bar closes in a quarter of an hour', () => {
    const slow = day(
      [
        [8, 27.4],
        [8.75, 31],
      ],
      noTrim,
    );
    expect(ask(slow, { endsAtMs: six + 12 * MS_PER_HOUR }).action).toBe('move');
    expect(ask(slow, { endsAtMs: six + 9 * MS_PER_HOUR }).action).toBe('leave');
  });

  it('leaves one shot just outside while few cups would be, and looks again sooner than after one inside', () => {
    const out = ask(
      day(
        [
          [1, 27.2],
          [2, 27.4],
          [3, 30.4],
        ],
        noTrim,
      ),
    );
    expect([out.action, out.setting]).toEqual(['leave', 30]);
    expect(out.outside).toBeLessThan(aCase().house.risk);
    expect(out.outside).toBeGreaterThan(
      ask(
        day(
          [
            [1, 27.2],
            [2, 27.4],
            [3, 27.3],
          ],
          noTrim,
        ),
      ).outside,
    );
  });

  it('weighs no other dose for one shot: it waits for a second one that says the same', () => {
    const once = ask(day([...[1, 2].map((hours): Timed => [hours, 27.2]), [3, 31]]));
    expect([once.action, once.setting, once.doseG]).toEqual(['leave', 30, null]);
    expect(once.nextCheckMin).toBeLessThanOrEqual(15);
    const twice = ask(day([...[1, 2].map((hours): Timed => [hours, 27.6]), [3, 29.1], [3.2, 29.3]]));
    expect([twice.action, twice.setting]).toEqual(['repeat', 30]);
    expect(twice.doseG).toBeLessThan(18);
  });

  it.each([
    ['slow', [31, 31.4, 31.2], 31],
    ['fast', [24, 23.8, 24.1], 29],
  ] as const)('three that run %s are answered: a mark, between two orders, with its purge', (_, times, setting) => {
    const advice = ask(
      day(
        times.map((timeS, i): Timed => [i + 1, timeS]),
        noTrim,
      ),
    );
    expect([advice.action, advice.setting]).toEqual(['move', setting]);
    expect(advice.purgeG).toBeGreaterThan(0);
    expect(advice.predicted.timeS).toBeGreaterThan(25);
    expect(advice.predicted.timeS).toBeLessThan(30);
  });

  it('answers a choke and a gush as at the bench, and wants the very next shot', () => {
    const choke = ask(
      day([
        [1, 27],
        [2, 45, { yieldG: 4, fault: 'choke' }],
      ]),
    );
    expect(choke.action).toBe('move');
    expect(choke.setting).toBeGreaterThan(30);
    expect([choke.nextCheckMin, choke.byBench]).toEqual([0, true]);
    // Asked a minute later it is still so.
    expect(
      ask(
        day(
          [
            [1, 27],
            [2, 45, { yieldG: 4, fault: 'choke' }],
          ],
          {},
          2.02,
        ),
      ).setting,
    ).toBe(choke.setting);
    const gush = ask(
      day([
        [1, 27],
        [2, 14],
      ]),
    );
    expect(gush.action).toBe('move');
    expect(gush.setting).toBeLessThan(30);
  });

  it('says where to start, as at the bench, where nobody has timed a shot yet', () => {
    const { action, setting, byBench, nextCheckMin } = ask(aCase({ shots: [], nowMs: six, standsAt: 30 }));
    expect([action, setting, byBench, nextCheckMin]).toEqual(['repeat', 30, true, 0]);
  });

  it('goes by what the bar remembers where nobody has timed a shot since the lock', () => {
    const heard = levelBank(day([1, 2, 3].map((hours): Timed => [hours, 31.5])));
    const [{ level, response } = { level: NaN, response: NaN }] = heard.models;
    const prior = { level, levelSd: 0.03, response, responseSd: 0.02 };
    const remembered = { bar: withGrinder(newBar(), 'house', prior), grinder: 'house', reference: 30 };
    const input = aCase({ ...noTrim, shots: [], nowMs: six, standsAt: 30, remembered });
    const { action, setting, byBench } = ask(input);
    expect([action, setting, byBench]).toEqual(['move', 31, false]);
  });

  it('chases no channel: what was known before stands', () => {
    const advice = ask(
      day([
        [1, 27.3],
        [1.1, 20, { fault: 'channel' }],
      ]),
    );
    expect([advice.action, advice.setting]).toEqual(['leave', 30]);
    expect(advice.nextCheckMin).toBeGreaterThan(30);
  });

  it('puts a wrong dose right, and leaves the collar', () => {
    const advice = ask(
      day([
        [1, 27.3],
        [2, 33, { doseG: 19.2 }],
      ]),
    );
    expect([advice.action, advice.setting, advice.doseG]).toEqual(['dose', 30, 18]);
  });

  it('another bag brings the next look forward; nothing else does what nobody told', () => {
    const now = 2.1;
    const plain = ask(
      day(
        [
          [1, 27.3],
          [2, 27.2],
        ],
        {},
        now,
      ),
    );
    const bag = ask(
      day(
        [
          [1, 27.3],
          [2, 27.2],
        ],
        { events: [{ atMs: six + 2.05 * MS_PER_HOUR, kind: 'newBag' }] },
        now,
      ),
    );
    expect(plain.action).toBe('leave');
    expect(bag.action).toBe('leave');
    expect(bag.nextCheckMin).toBeLessThan(plain.nextCheckMin / 2);
    expect(bag.outside).toBeGreaterThan(plain.outside);
  });

  it('follows a coffee that ages with the dose, where the house answers a small miss so, and with the collar elsewhere', () => {
    const aged: Timed[] = [1, 1.5, 2, 2.5, 3, 3.5].map((hours) => [hours, 27.4 - 0.6 * hours]);
    const byCollar = ask(day(aged, noTrim));
    expect([byCollar.action, byCollar.setting, byCollar.doseG]).toEqual(['move', 29, null]);
    const byDose = ask(day(aged, { house: { ...noTrim.house, smallMiss: 'dose' } }));
    expect([byDose.action, byDose.setting, byDose.purgeG]).toEqual(['repeat', 30, 0]);
    expect(byDose.doseG).toBeGreaterThan(18);
    expect(byDose.doseG).toBeLessThanOrEqual(18.4);
    // A basket that takes no more leaves the collar to do it.
    const full = { recipe: { ...aCase().recipe, basketG: { min: 17.5, max: 18 } } };
    expect(ask(day(aged, { house: { ...noTrim.house, smallMiss: 'dose' }, ...full })).action).toBe('move');
  });

  it('leaves a small miss to the hands where the house does, and turns the collar once two shots say that they did not do', () => {
    const house = { ...noTrim.house, smallMiss: 'tamp' as const };
    const faster: Timed[] = [1, 1.5, 2, 2.5, 3, 3.5].map((hours) => [hours, 27.4 - 0.6 * hours]);
    expect(ask(day(faster, noTrim))).toMatchObject({ action: 'move', tampS: null });
    const byHand = ask(day(faster, { house }));
    expect(byHand).toMatchObject({ action: 'repeat', setting: 30, purgeG: 0, doseG: null });
    expect(byHand.tampS).toBeGreaterThan(1);
    // Too far for any tamp, or tamped in vain.
    const far: Timed[] = [1, 1.5, 2, 2.5].map((hours) => [hours, 26 - 2 * hours]);
    expect(ask(day(far, { house }))).toMatchObject({ action: 'move', tampS: null });
    const inVain: Timed[] = [...faster.slice(0, 4), [3, 24.7], [3.2, 24.6]];
    expect(ask(day(inVain, { house }))).toMatchObject({ action: 'move', tampS: null });
  });

  it('doubts more the longer nobody looked, and looks sooner where more cups run', () => {
    const at = (hours: number) => ask(day([[1, 28.6]], noTrim, hours)).outside;
    expect(at(4)).toBeGreaterThan(at(2));
    expect(at(2)).toBeGreaterThan(at(1.05));
    const timed: Timed[] = [
      [1, 28.6],
      [2, 28.9],
    ];
    const [quiet, rush] = [10, 120].map((cupsPerHour) => ask(day(timed, noTrim), { cupsPerHour }).nextCheckMin);
    expect(rush).toBeLessThanOrEqual(quiet ?? 0);
  });

  it('never goes past the house’s ceiling, nor sooner than five minutes for mere doubt', () => {
    for (const longestCheckMin of [20, 45, 90]) {
      const house = { ...aCase().house, longestCheckMin };
      const { nextCheckMin } = ask(
        day(
          [
            [1, 27.3],
            [2, 27.2],
          ],
          { house },
        ),
      );
      expect(nextCheckMin).toBeLessThanOrEqual(longestCheckMin);
      expect(nextCheckMin).toBeGreaterThanOrEqual(5);
    }
  });

  it('where no mark and no dose does better it leaves, and does not look again and again for nothing', () => {
    // A mark of 9 s in a window of 5: neither is ever sure.
    const coarse = { ...noTrim, secondsPerMark: 9 };
    const times: Timed[] = [1, 1.2, 1.4, 1.6, 1.8, 2].map((hours) => [hours, 29.6]);
    const advice = ask(day(times, coarse));
    expect(advice.action).toBe('leave');
    expect(advice.nextCheckMin).toBeGreaterThanOrEqual(15);
  });

  it('takes a dose between two marks for what lies between them, never for noise', () => {
    const once = ask(day([[1, 28.6]]));
    expect(once.action).toBe('leave');
    const again = ask(day([1, 1.2, 1.4, 1.6, 1.8, 2].map((hours): Timed => [hours, 29.2])));
    expect(again.action).toBe('repeat');
    expect(again.setting).toBe(30);
    expect(again.doseG).toBeLessThan(18);
    expect(again.doseG).toBeGreaterThanOrEqual(17.6);
  });

  it('asks for the next shot where a bag leaves more open than the house bears, and turns nothing before it', () => {
    const held = { setting: 30, timeS: 27.4, sd: 0.03 };
    const since = { newBag: true, hours: 14 };
    const open = ask(aCase({ shots: [], held, since, nowMs: six, standsAt: 30 }));
    expect(open).toMatchObject({ action: 'leave', asksToLook: true, nextCheckMin: 5 });
    expect(open.outside).toBeGreaterThan(aCase().house.risk);
    expect(ask(day([[2, 27.2]], {}, 2.1)).asksToLook).toBe(false);
    // Where a mark is too coarse to do better, a shot mends nothing.
    const coarse = { ...noTrim, secondsPerMark: 9 };
    expect(
      ask(
        day(
          [1, 1.2, 1.4, 1.6, 1.8, 2].map((hours): Timed => [hours, 29.6]),
          coarse,
        ),
      ).asksToLook,
    ).toBe(false);
  });

  it('begins from where it held, where no shot was timed since', () => {
    const held = aCase({ shots: [], nowMs: six, standsAt: 30, since: { newBag: false, hours: 1 } });
    expect(ask({ ...held, held: { setting: 30, timeS: 27.4, sd: 0.03 } })).toMatchObject({
      action: 'leave',
      byBench: false,
    });
    expect(ask(held).byBench).toBe(true);
  });

  it('asks for a dose once: what is weighed from now on is not asked for again by the shots from before', () => {
    const slow: Timed[] = [1, 2].map((hours): Timed => [hours, 27.6]);
    const asked = ask(day([...slow, [3, 29.1], [3.2, 29.3]]));
    expect(asked.action).toBe('repeat');
    const trimG = (asked.doseG ?? 18) - 18;
    const done = ask(day([...slow, [3, 29.1], [3.2, 29.3]], { trimG }));
    expect([done.action, done.doseG]).toEqual(['leave', asked.doseG]);
  });

  it('answers a run outside in a quiet bar too, unless it is as good as closed', () => {
    const run = day(
      [1, 2, 3].map((hours): Timed => [hours, 31.4]),
      noTrim,
    );
    expect(ask(run, { cupsPerHour: 3 })).toMatchObject({ action: 'move', setting: 31 });
    expect(ask(run, { cupsPerHour: 3, endsAtMs: six + 3.2 * MS_PER_HOUR }).action).toBe('leave');
  });

  it('is the same for the same day, whatever minute it was asked before', () => {
    const input = day([
      [1, 28.1],
      [2, 29.3],
    ]);
    expect(ask(input)).toEqual(ask(input));
  });
});

describe('whatever a day brings', () => {
  const random = pseudoRandom(2_027);
  const oneOf = <T>(all: readonly T[]): T => all[Math.floor(random() * all.length)]!;
  const days = Array.from({ length: 400 }, () => {
    const secondsPerMark = oneOf([0.8, 1.5, 2.5, 4, 6]);
    const [min, width] = [oneOf([21, 25, 30]), oneOf([3, 4, 5, 7])];
    const middle = Math.sqrt(min * (min + width));
    let setting = 30;
    let level = 0.06 * gaussian(random);
    const shots = Array.from({ length: 1 + Math.floor(random() * 8) }, (_, i) => {
      level += 0.03 * gaussian(random);
      if (random() < 0.2) setting += oneOf([-1, 1]);
      const timeS = middle * Math.exp(level + 0.05 * gaussian(random)) + secondsPerMark * (30 - setting);
      return aShot({ setting, timeS, doseG: 18 + 0.1 * gaussian(random), atMs: six + (0.5 * i + 0.2) * MS_PER_HOUR });
    });
    const dial = { stepMarks: oneOf([1, 0.5, 0.1]), finer: 'down' as const, range: null };
    const house = {
      ...aCase().house,
      trim: oneOf(['dose', 'none'] as const),
      smallMiss: oneOf(['collar', 'dose'] as const),
    };
    const recipe = { ...aCase().recipe, timeS: { min, max: min + width } };
    const input = aCase({
      recipe,
      dial,
      house,
      secondsPerMark,
      shots,
      standsAt: setting,
      nowMs: shots.at(-1)?.atMs ?? six,
    });
    return { input, advice: ask(input, { cupsPerHour: oneOf([6, 40, 120]) }), middle };
  });
  const turns = days.filter(({ advice }) => advice.action === 'move' && !advice.byBench);

  it('nobody is sent to the side of the middle that the last shot lay on, nor from one miss to a worse one', () => {
    expect(turns.length).toBeGreaterThan(60);
    for (const { input, advice, middle } of turns) {
      const last = input.shots.at(-1)!;
      const lnLast = Math.log(normalisedTime(last, input.recipe).normalisedS / middle);
      const finer = last.setting - advice.setting;
      expect(finer * lnLast).toBeLessThanOrEqual(0);
      const off = ({ timeS }: { timeS: number }): number => Math.abs(Math.log(timeS / middle));
      const isInside =
        advice.predicted.timeS >= input.recipe.timeS.min && advice.predicted.timeS <= input.recipe.timeS.max;
      expect(isInside || off(advice.predicted) < off(advice.here.predicted)).toBe(true);
    }
  });

  it('one thing is changed at a time', () => {
    for (const { advice } of turns) expect(advice.doseG).toBeNull();
    const trimmed = turns.map(({ input }) => ask({ ...input, trimG: 0.2 }));
    for (const { doseG } of trimmed.filter(({ action, byBench }) => action === 'move' && !byBench)) {
      expect([null, 18.2]).toContain(doseG);
    }
  });
});

describe('the bank of models', () => {
  it('is a Kalman filter each: one shot at the reference, by hand', () => {
    const input = aCase({ since: null, shots: [aShot({ timeS: 30, atMs: six })], nowMs: six, standsAt: 30 });
    const { models, shotVariance } = levelBank(input);
    // Never held: ln T about ln of the middle with sd 0.35; a slow shot of 0.09 is no surprise there, so it is trusted in full.
    const prior = Math.log(Math.sqrt(25 * 30));
    for (const model of models) {
      const gain = 0.35 ** 2 / (0.35 ** 2 + shotVariance);
      expect(model.level).toBeCloseTo(prior + gain * (Math.log(30) - prior), 6);
      expect(model.levelVariance).toBeCloseTo((1 - gain) * 0.35 ** 2, 6);
    }
    expect(models.reduce((sum, { weight }) => sum + weight, 0)).toBeCloseTo(1, 9);
  });

  it('learns from the day’s own shots how much a grinder wanders', () => {
    const hourly = (times: readonly number[]): AdviceCase => day(times.map((timeS, i): Timed => [i + 1, timeS]));
    const restless = (input: AdviceCase): number =>
      levelBank(input)
        .models.filter(({ wandering }) => wandering.walkSd >= 0.05)
        .reduce((sum, { weight }) => sum + weight, 0);
    const calm = restless(hourly([27.2, 27.5, 27, 27.3, 27.1, 27.4, 27.2, 27.3]));
    const wild = restless(hourly([28, 31, 27, 24, 29, 33, 36, 31]));
    expect(calm).toBeLessThan(0.25);
    expect(wild).toBeGreaterThan(0.5);
  });

  it('tells a trend from restlessness: what slows by the hour is expected to go on for a while', () => {
    const slowing = levelBank(day([27, 28, 29.2, 30.3, 31.4].map((timeS, i): Timed => [i + 1, timeS])));
    const steady = slowing.models.reduce((sum, { weight, wandering }) => sum + (wandering.trendSd > 0 ? weight : 0), 0);
    expect(steady).toBeGreaterThan(0.35);
    const lnAfter = (hours: number): number =>
      slowing.models.reduce((sum, model) => sum + model.weight * slowing.expectedAt(model, 0, hours).mean, 0);
    const firstHour = lnAfter(1) - lnAfter(0);
    expect(firstHour).toBeGreaterThan(0.004);
    expect(firstHour).toBeLessThan(0.05);
    // It comes and goes: the fifth hour from now is not as sure to go that way as the first.
    expect(lnAfter(5) - lnAfter(4)).toBeLessThan(firstHour / 2);
  });

  it('says the chance outside that drawing from it says', () => {
    const input = day(
      [
        [1, 28.9],
        [2, 29.4],
      ],
      noTrim,
    );
    const { models, expectedAt } = levelBank(input);
    const random = seededRandom(5);
    const DRAWS = 40_000;
    let out = 0;
    for (let i = 0; i < DRAWS; i += 1) {
      let pick = random();
      const model = models.find(({ weight }) => (pick -= weight) < 0) ?? models[0]!;
      const { mean, variance } = expectedAt(model, 0);
      const timeS = Math.exp(mean + Math.sqrt(variance) * gaussian(random));
      if (timeS < 25 || timeS > 30) out += 1;
    }
    const { outside, action } = ask(input);
    expect(action).toBe('leave');
    expect(outside).toBeCloseTo(out / DRAWS, 1);
  });
});
