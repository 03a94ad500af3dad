import { describe, expect, it } from 'vitest';
import { benchState, emptyMemory, updateWithFacts, usualPolicy, type MemoryContext } from '../calibration/index.ts';
import { aCase } from '../calibration/testCases.ts';
import { standingFacts, type Entry } from '../facts/index.ts';
import { factMaker } from '../facts/testFacts.ts';
import { gaussian, MINUTES_PER_DAY, MS_PER_HOUR, MS_PER_MINUTE, seededRandom } from '../numbers/index.ts';
import { serve, type ServiceAdvice } from './serve.ts';

/** 18 g in, 36 g out, 25-30 s; a mark is worth 2.5 s, smaller is finer. Locked at 30 by minute 10. */
const { recipe, dial } = aCase();
const grinder = { id: 'grinder', dial, secondsPerMark: 2.5, retentionG: null, seedSetting: 30 };
const context: MemoryContext = { grinders: new Map([['grinder', grinder]]), recipeOf: () => recipe };
const start = Date.parse('2031-05-04T06:00:00Z');
const make = factMaker();
const house = { ...usualPolicy, trim: 'none' as const };
const CLOSES_MIN = 600;

const timed = (timeS: number, minute: number, setting = 30): Entry =>
  make('shot', { timeS, setting, check: true, service: true }, minute);
const morningOf = (day: number, setting = 30): Entry[] => [
  ...[2, 4, 6].map((minute) => make('shot', { timeS: 27.4, setting }, day * MINUTES_PER_DAY + minute)),
  make('lock', { setting }, day * MINUTES_PER_DAY + 10),
];

/** What the day makes of these facts, so many minutes after six. */
function advised(entries: readonly Entry[], minute: number): ServiceAdvice {
  const facts = standingFacts(entries);
  const memory = updateWithFacts(emptyMemory, facts, context);
  const nowMs = start + minute * MS_PER_MINUTE;
  const bench = benchState(facts, grinder, recipe, house, nowMs, memory);
  return serve(bench.serviceCase(), { endsAtMs: start + CLOSES_MIN * MS_PER_MINUTE, cupsPerHour: 40 });
}

describe('a guest’s own shot, timed in service', () => {
  it('is judged as a shot is: one that gushes is answered at once, as at the bench', () => {
    const gushed = advised([...morningOf(0), timed(11, 60)], 60);
    expect(gushed).toMatchObject({ action: 'move', byBench: true, nextCheckMin: 0 });
    expect(gushed.setting).toBeLessThan(30);
  });

  it('is looked at again within minutes where it lay outside and nothing is changed', () => {
    const calm = [...morningOf(0), timed(27.4, 60), timed(27.3, 120), timed(27.5, 180)];
    const slow = advised([...calm, timed(30.8, 240)], 240);
    expect(slow.action).toBe('leave');
    expect(slow.nextCheckMin).toBeLessThanOrEqual(10);
    expect(slow.doubtedS).toBe(30.8);
    // The next one was inside: that was noise.
    expect(advised([...calm, timed(30.8, 240), timed(27.6, 250)], 250).nextCheckMin).toBeGreaterThan(10);
  });

  it('never turns the collar the way that takes it farther out, whatever was poured before it', () => {
    const slowBefore = [...morningOf(0), timed(30.9, 60), timed(30.6, 120)];
    const fastBefore = [...morningOf(0), timed(24.4, 60), timed(24.2, 120)];
    for (const off of [1, 2, 3, 5, 8, 12]) {
      // At once, and as long as nothing else was poured.
      for (const minute of [130, 140, 190]) {
        expect(advised([...slowBefore, timed(25 - off, 130)], minute).setting).toBeLessThanOrEqual(30);
        expect(advised([...fastBefore, timed(30 + off, 130)], minute).setting).toBeGreaterThanOrEqual(30);
      }
    }
  });

  it('that is over in half the time is no cup badly seen: its yield may be a guess, the collar is answered at once', () => {
    const byEye = make(
      'shot',
      { timeS: 12, check: true, service: true, measured: { dose: 'timed', yield: 'eye' } },
      240,
    );
    const { action, setting } = advised([...morningOf(0), timed(27.4, 120), byEye], 240);
    expect(action).toBe('move');
    expect(setting).toBeLessThan(30);
  });

  it('is heard beside the next: two that lie outside on one side are answered', () => {
    const calm = [...morningOf(0), timed(27.4, 60), timed(27.3, 120), timed(27.5, 180)];
    const { action, setting } = advised([...calm, timed(31, 240), timed(31.4, 250)], 250);
    expect(action).toBe('move');
    expect(setting).toBeGreaterThan(30);
  });
});

describe('a grinder whose weeks were quiet', () => {
  const DAYS = 20;
  const SHOT_SD = 0.05;
  const quietWeeks = (seed: number): Entry[] => {
    const random = seededRandom(seed);
    return Array.from({ length: DAYS }, (_, day) => [
      ...morningOf(day - DAYS),
      ...[1, 2, 3, 4, 5, 6, 7, 8].map((hour) =>
        timed(27.4 * Math.exp(SHOT_SD * gaussian(random)), (day - DAYS) * MINUTES_PER_DAY + hour * 60),
      ),
    ]).flat();
  };

  /** Serves a day that runs one way, doing what it says. @returns shares of the day's cups that lie outside: until the first move, and in all */
  function shareOutside(seed: number, perHour: number): { uncaught: number; all: number } {
    const entries: Entry[] = [...quietWeeks(seed), ...morningOf(0)];
    let [setting, driftLn, dueMin, out] = [30, 0, 0, 0];
    let uncaught: number | null = null;
    const [from, step] = [15, 5];
    for (let minute = from; minute < CLOSES_MIN; minute += step) {
      driftLn += (perHour * step) / (MS_PER_HOUR / MS_PER_MINUTE);
      const timeS = 27.4 * Math.exp(driftLn + (2.5 / 27.4) * (30 - setting));
      if (timeS < 25 || timeS > 30) out += 1;
      if (minute < dueMin) continue;
      entries.push(timed(timeS, minute, setting));
      const { action, setting: to, nextCheckMin } = advised(entries, minute);
      if (action === 'move') {
        uncaught ??= out;
        entries.push(make('collarMove', { from: setting, to, advisedTo: to, service: true }, minute + 1));
        setting = to;
      }
      dueMin = minute + nextCheckMin;
    }
    const cups = (CLOSES_MIN - from) / step;
    return { uncaught: (uncaught ?? out) / cups, all: out / cups };
  }

  it('is caught all the same on a day when it runs one way, before one cup in twenty is out, and followed', () => {
    const days = [1, 2, 3, 4].flatMap((seed) => [0.04, -0.04].map((perHour) => shareOutside(seed, perHour)));
    const mean = (of: 'uncaught' | 'all'): number => days.reduce((sum, one) => sum + one[of] / days.length, 0);
    expect(mean('uncaught')).toBeLessThan(0.05);
    // Left alone, three cups in four would be.
    expect(mean('all')).toBeLessThan(0.06);
  });
});
