import { describe, expect, it } from 'vitest';
import { gaussian, MS_PER_DAY, MS_PER_HOUR, seededRandom } from '../numbers/index.ts';
import { engineDefaults } from './engineDefaults.ts';
import { habitAfterBag, habitAfterShot, habitAfterJump, usualShift, type Habit } from './habit.ts';
import { trendOver, wanderings } from './wanderings.ts';

const six = Date.parse('2031-05-04T06:00:00Z');
/** A mark is worth 9 %, give or take nothing. */
const response = { mean: 0.09, variance: 0 };
const VARIANCE = 0.055 ** 2;

interface Shape {
  /** ln T that is added by the hours of the day. */
  at: (hours: number) => number;
  noise?: number;
  /** ln T that every bag adds, in the middle of the day. */
  bagSd?: number;
}

/** A grinder after so many days that are alike, a shot every hour from six to four. */
function daysOf(count: number, { at, noise = 0.055, bagSd = 0 }: Shape, seed = 3): Habit {
  const random = seededRandom(seed);
  let habit: Habit | null = null;
  for (let day = 0; day < count; day += 1) {
    let level = 3.3 + 0.1 * gaussian(random);
    for (let hour = 0; hour <= 10; hour += 1) {
      if (hour === 5 && habit) {
        habit = habitAfterBag(habit, false);
        level += bagSd * gaussian(random);
      }
      const lnT = level + at(hour) + noise * gaussian(random);
      const atMs = six + day * MS_PER_DAY + hour * MS_PER_HOUR;
      habit = habitAfterShot(habit, { atMs, lnT, x: 0, variance: VARIANCE }, response);
    }
  }
  if (!habit) throw new Error('no day');
  return habit;
}

/** What the days before say of the hours since the day began. */
const usually = (habit: Habit, from: number, to: number): number =>
  usualShift(habit, habit.beganAtMs + from * MS_PER_HOUR, habit.beganAtMs + to * MS_PER_HOUR);

const chanceOf = (habit: Habit, where: (one: (typeof wanderings)[number]) => boolean): number =>
  habit.weights.reduce((sum, weight, i) => sum + (wanderings[i] && where(wanderings[i]) ? weight : 0), 0);

describe('how a grinder goes through its day', () => {
  it('learns its shape: burrs that slow it by 8 % in three hours, and nothing after', () => {
    const habit = daysOf(21, { at: (hours) => 0.08 * Math.min(1, hours / 3) });
    expect(usually(habit, 0, 3)).toBeCloseTo(0.08, 1);
    expect(usually(habit, 0, 3)).toBeGreaterThan(0.05);
    expect(Math.abs(usually(habit, 4, 9))).toBeLessThan(0.03);
  });

  it('says nothing of a grinder whose days nobody has seen, nor of its first', () => {
    const habit = daysOf(1, { at: (hours) => 0.05 * hours });
    expect(usually(habit, 0, 6)).toBe(0);
    // The first day has taught something for the second, and less than it showed.
    const second = daysOf(2, { at: (hours) => 0.05 * hours, noise: 0 });
    expect(usually(second, 0, 1)).toBeGreaterThan(0.01);
    expect(usually(second, 0, 1)).toBeLessThan(0.05);
  });

  it('finds no shape where there is none', () => {
    const habit = daysOf(21, { at: () => 0 });
    for (const hour of [0, 2, 5, 8]) expect(Math.abs(usually(habit, hour, hour + 1))).toBeLessThan(0.016);
  });

  it('takes a turn of the collar for what it is worth', () => {
    let habit = habitAfterShot(null, { atMs: six, lnT: 3.3, x: 0, variance: VARIANCE }, response);
    const finer = { atMs: six + MS_PER_HOUR, lnT: 3.3 + 0.18, x: 2, variance: VARIANCE };
    habit = habitAfterShot(habit, finer, response);
    const next = { atMs: six + MS_PER_DAY, lnT: 3.3, x: 2, variance: VARIANCE };
    habit = habitAfterShot(habit, next, response);
    expect(usually(habit, 0, 1)).toBeCloseTo(0, 9);
  });

  it('knows from its days how much it wanders, and what another bag does', () => {
    const calm = daysOf(21, { at: () => 0 });
    const { walkSd } = wanderings.at(-1)!;
    expect(chanceOf(calm, (one) => one.walkSd === walkSd)).toBeLessThan(0.01);
    expect(chanceOf(calm, ({ bagSd }) => bagSd > 0.1)).toBeLessThan(0.1);
    const bags = daysOf(21, { at: () => 0, bagSd: 0.12 });
    expect(chanceOf(bags, ({ bagSd }) => bagSd > 0.1)).toBeGreaterThan(0.45);
  });

  it('is not misled by something that was told: a cleaning explains what it moved', () => {
    const before = daysOf(3, { at: () => 0 });
    const last = before.last!;
    const jump = { atMs: last.atMs + MS_PER_HOUR, lnT: last.lnT + 0.2, x: 0, variance: VARIANCE };
    const restless = (habit: Habit): number => chanceOf(habit, ({ walkSd }) => walkSd >= 0.05);
    const unexplained = habitAfterShot(before, jump, response);
    const explained = habitAfterShot(habitAfterJump(before, 0.25 ** 2), jump, response);
    expect(restless(explained)).toBeLessThan(restless(unexplained));
  });

  it('begins another level with another coffee, and another day after a night', () => {
    const habit = habitAfterBag(daysOf(2, { at: () => 0 }), true);
    expect(habit.last).toBeNull();
    const other = habitAfterShot(
      habit,
      { atMs: six + MS_PER_DAY + 10.5 * MS_PER_HOUR, lnT: 4, x: 0, variance: VARIANCE },
      response,
    );
    expect(other.weights).toEqual(habit.weights);
    const night = { atMs: six + 2 * MS_PER_DAY, lnT: 3.9, x: 0, variance: VARIANCE };
    expect(habitAfterShot(other, night, response).beganAtMs).toBe(night.atMs);
  });
});

describe('a trend that comes and goes', () => {
  it('is the integrated Ornstein-Uhlenbeck process: by drawing it in small steps', () => {
    const random = seededRandom(11);
    const LASTS_H = engineDefaults.trendLastsHours;
    const STEP_H = 0.01;
    const HOURS = 3;
    const ends = Array.from({ length: 4_000 }, () => {
      let [trend, level] = [0, 0];
      for (let at = 0; at < HOURS; at += STEP_H) {
        level += trend * STEP_H;
        trend += (-trend / LASTS_H) * STEP_H + Math.sqrt((2 / LASTS_H) * STEP_H) * gaussian(random);
      }
      return { trend, level };
    });
    const mean = (of: (end: (typeof ends)[number]) => number): number =>
      ends.reduce((sum, end) => sum + of(end), 0) / ends.length;
    const { levelVariance, covariance, variance } = trendOver(HOURS);
    expect(mean(({ level }) => level ** 2) / levelVariance).toBeCloseTo(1, 1);
    expect(mean(({ level, trend }) => level * trend) / covariance).toBeCloseTo(1, 1);
    expect(mean(({ trend }) => trend ** 2) / variance).toBeCloseTo(1, 1);
  });

  it('has the level take up the whole of a short hour, and no more than it lasts', () => {
    expect(trendOver(0.1).takenUp).toBeCloseTo(0.1, 2);
    expect(trendOver(100).takenUp).toBeCloseTo(engineDefaults.trendLastsHours, 6);
  });
});
