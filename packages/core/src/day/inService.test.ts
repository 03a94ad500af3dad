import { describe, expect, it } from 'vitest';
import {
  benchState,
  emptyMemory,
  grinderSet,
  posterior,
  updateWithFacts,
  usualPolicy,
  type MemoryContext,
} from '../calibration/index.ts';
import { knownOf, levelOf } from '../calibration/barModel.ts';
import { aCase } from '../calibration/testCases.ts';
import { standingFacts, type Entry } from '../facts/index.ts';
import { factMaker, stepMaker } from '../facts/testFacts.ts';
import { usualServicePolicy } from '../house/index.ts';
import { MINUTES_PER_DAY, MS_PER_MINUTE } from '../numbers/index.ts';
import { doseDueInService } from './doseDue.ts';
import { levelBank } from './levelBank.ts';
import { dueInService, lastHeard, putOffUntilMs, serviceAt } from './dueInService.ts';

/** 18 g in, 36 g out, 25-30 s; a mark is worth 2.5 s; three shots in the middle and a lock by minute 10. */
const { recipe, dial } = aCase();
const grinder = { id: 'grinder', dial, secondsPerMark: 2.5, retentionG: null, seedSetting: 30 };
const context: MemoryContext = { grinders: new Map([['grinder', grinder]]), recipeOf: () => recipe };
const start = Date.parse('2031-05-04T06:00:00Z');
const make = factMaker();
const step = stepMaker();
const lock = make('lock', { setting: 30 }, 10);
const morning: Entry[] = [...[2, 4, 6].map((minute) => make('shot', { timeS: 27.4 }, minute)), lock];
const neverCloses = () => null;
const house = { ...usualPolicy };

function due(more: Entry[], change: Partial<typeof house> = {}): number {
  const facts = standingFacts([...morning, ...more]);
  const memory = updateWithFacts(emptyMemory, facts, context);
  const caseAt = (nowMs: number) =>
    benchState(facts, grinder, recipe, { ...house, ...change }, nowMs, memory).serviceCase();
  return ((dueInService(facts, 'grinder', caseAt, neverCloses) ?? NaN) - start) / MS_PER_MINUTE;
}
const look = (sign: 'asItShould' | 'fastPale' | 'slowDark' | 'littleIn', minute: number) =>
  make('seen', { setting: 30, sign, recipeVersionId: 'recipe' }, minute);
const timed = (timeS: number, minute: number, body: object = {}) =>
  make('shot', { timeS, check: true, service: true, ...body }, minute);
const happened = (what: 'doors' | 'refill' | 'otherHands', minute: number, grinderId: string | null = null) =>
  step({ step: 'happened', what, grinderId }, minute);

describe('when a grinder is looked at in service', () => {
  it('is told by the controller from the last thing that was learned, and the clock does not change it', () => {
    const afterLock = due([]);
    expect(afterLock).toBeGreaterThanOrEqual(15);
    expect(afterLock).toBeLessThanOrEqual(10 + house.longestCheckMin);
    const afterShot = due([timed(27.3, 60)]);
    expect(afterShot).toBeGreaterThan(60);
    // A flawed shot says nothing.
    expect(due([timed(20, 60, { flaw: 'channel' })])).toBe(afterLock);
  });

  it('comes sooner after a shot near the edge, and sooner once the doors stand open', () => {
    const patient = (...more: Entry[]): number => due(more, { longestCheckMin: 240 });
    const calm = patient(timed(27.3, 60));
    expect(patient(timed(29.9, 60))).toBeLessThan(calm);
    expect(patient(timed(27.3, 60), happened('doors', 61))).toBeLessThan(calm);
    expect(patient(timed(27.3, 60), happened('refill', 61, 'other'))).toBe(calm);
  });

  it('is told from another bag on, once it is in: never from before it', () => {
    const bag = make('newBag', {}, 35);
    expect(lastHeard(standingFacts([...morning, bag]), 'grinder')).toEqual({
      atMs: start + 35 * MS_PER_MINUTE,
      happened: true,
    });
    expect(due([bag])).toBeGreaterThanOrEqual(35);
    expect(due([bag])).toBeLessThan(due([timed(27.3, 35)]));
  });

  it('can be put off, and another look ends that', () => {
    const late = due([]);
    const off = step({ step: 'putOff', grinderId: 'grinder', minutes: 15 }, late);
    expect(due([off])).toBe(late + 15);
    expect(putOffUntilMs(standingFacts([...morning, off]), 'grinder')).toBe(start + (late + 15) * MS_PER_MINUTE);
    expect(putOffUntilMs(standingFacts([...morning, off, timed(27.3, late + 3)]), 'grinder')).toBeNull();
    expect(due([off, timed(27.3, late + 3)])).toBe(due([timed(27.3, late + 3)]));
  });

  it('goes by the clock, or by what happened only, where the house says so', () => {
    expect(due([timed(27.3, 60)], { recheck: 'hours', longestCheckMin: 45 })).toBe(105);
    expect(due([timed(27.3, 60)], { recheck: 'changes' })).toBe(60 + 1_440);
    expect(due([timed(27.3, 60), happened('otherHands', 70, 'grinder')], { recheck: 'changes' })).toBe(70);
  });

  it('is not asked of a grinder that never held', () => {
    expect(lastHeard(standingFacts([timed(27, 3)]), 'grinder')).toBeNull();
  });
});

describe('what a look and a happening say', () => {
  const level = (more: Entry[], minute: number) => {
    const memory = updateWithFacts(emptyMemory, standingFacts([...morning, ...more]), context);
    return knownOf(posterior(memory, start + minute * MS_PER_MINUTE), levelOf('grinder'))!;
  };

  it('a fast look moves the level down, a slow one up, less than a timed shot would', () => {
    const before = level([], 60);
    expect(level([look('fastPale', 60)], 60).mean).toBeLessThan(before.mean);
    expect(level([look('slowDark', 60)], 60).mean).toBeGreaterThan(before.mean);
    const byShot = before.mean - level([timed(23, 60)], 60).mean;
    expect(before.mean - level([look('fastPale', 60)], 60).mean).toBeLessThan(byShot);
    expect(level([look('littleIn', 60)], 60)).toEqual(before);
  });

  it('one pair of eyes tells less each time: ten looks are not ten shots', () => {
    const looks = (n: number) =>
      level(
        Array.from({ length: n }, (_, i) => look('asItShould', 60 + i)),
        75,
      ).sd;
    expect(looks(1)).toBeLessThan(level([], 75).sd);
    const gain = (n: number) => looks(n - 1) - looks(n);
    expect(gain(6)).toBeLessThan(gain(2));
    expect(looks(10)).toBeGreaterThan(level([timed(27.3, 74), timed(27.3, 75)], 75).sd);
  });

  it('open doors make every grinder less sure, a refill its own', () => {
    const sd = level([], 60).sd;
    expect(level([happened('doors', 50)], 60).sd).toBeGreaterThan(sd);
    expect(level([happened('refill', 50, 'grinder')], 60).sd).toBeGreaterThan(sd);
    expect(level([happened('refill', 50, 'other')], 60).sd).toBe(sd);
  });
});

describe('a small move and a dose that was set in service', () => {
  it('keep what was locked, at the new mark and with the new dose', () => {
    const facts = standingFacts([
      ...morning,
      make('collarMove', { from: 30, to: 29, advisedTo: 29, service: true }, 60),
      step({ step: 'doseSet', grinderId: 'grinder', doseG: 18.2, grindTimeS: 6.4 }, 61),
    ]);
    const set = grinderSet(facts, 'grinder')!;
    expect(set).toMatchObject({ setting: 29, changed: false });
    expect(set.doses[0]).toMatchObject({ doseTimeS: 6.4 });
    const memory = updateWithFacts(emptyMemory, facts, context);
    const { adviceCase } = benchState(facts, grinder, recipe, house, start, memory);
    expect(adviceCase.standsAt).toBe(29);
    expect(adviceCase.trimG).toBeCloseTo(0.2);
    expect(lastHeard(facts, 'grinder')).toEqual({ atMs: start + 60 * MS_PER_MINUTE, happened: false });
  });

  it('dialling on is another matter', () => {
    const facts = standingFacts([...morning, make('collarMove', { from: 30, to: 28, advisedTo: null }, 60)]);
    expect(grinderSet(facts, 'grinder')).toMatchObject({ setting: 30, changed: true });
  });
});

describe('when a dose is weighed in service', () => {
  const rule = { ...usualServicePolicy, risk: 0.2, longestCheckMin: 60 };
  const doseDue = (more: Entry[], change: Partial<typeof rule> = {}, cupsPerHour = 40): number | null => {
    const atMs = doseDueInService(
      standingFacts([...morning, ...more]),
      'grinder',
      recipe,
      { ...rule, ...change },
      cupsPerHour,
    );
    return atMs === null ? null : (atMs - start) / MS_PER_MINUTE;
  };

  it('falls due when its mean may be outside with the house’s risk', () => {
    // 0.3 of 18 g is 1.67 %; P(|N(0, s)| > 1.67 %) reaches 0.2 at s = 1.3 %: (1.3^2 - 0.8^2) / 1.2^2 = 0.73 h.
    expect(doseDue([])).toBeCloseTo(10 + 44, -0.5);
    expect(doseDue([make('dose', { doseG: 18.1 }, 30)])).toBeGreaterThan(doseDue([])!);
    expect(doseDue([happened('refill', 20, 'grinder')])).toBe(15);
  });

  it('or by the clock, by drinks, or never', () => {
    expect(doseDue([], { doseCheck: 'quarterHour' })).toBe(25);
    expect(doseDue([], { doseCheck: 'twentyDrinks' }, 80)).toBe(25);
    expect(doseDue([], { doseCheck: 'never' })).toBeNull();
    expect(doseDue([], { dosing: 'weighed' })).toBeNull();
  });
});

describe('a rush', () => {
  it('doubles the cups until it is over, or until nobody can mean it any more', () => {
    const cups = (entries: Entry[], minute: number) =>
      serviceAt(standingFacts(entries), start + minute * MS_PER_MINUTE, null).cupsPerHour;
    const began = step({ step: 'happened', what: 'rushBegan', grinderId: null }, 10);
    const ended = step({ step: 'happened', what: 'rushEnded', grinderId: null }, 40);
    expect([cups([], 20), cups([began], 20), cups([began, ended], 50), cups([began], 400)]).toEqual([40, 80, 40, 40]);
  });
});

describe('the end of service', () => {
  it('is the calendar’s hour, and an hour on where the bar is seen to pour past it', () => {
    const minutesLeft = (closes: number, atMinute: number, ...more: Entry[]): number => {
      const facts = standingFacts([...morning, ...more]);
      const atMs = start + atMinute * MS_PER_MINUTE;
      return (serviceAt(facts, atMs, start + closes * MS_PER_MINUTE).endsAtMs - atMs) / MS_PER_MINUTE;
    };
    expect(minutesLeft(600, 60)).toBe(540);
    expect(minutesLeft(600, 620)).toBe(-20);
    expect(minutesLeft(600, 620, timed(28, 610))).toBe(60);
    expect(minutesLeft(600, 620, happened('doors', 610))).toBe(-20);
    expect(minutesLeft(600, 620, timed(28, 590))).toBe(-20);
  });
});

describe('what the bar’s memory tells of how a grinder wanders', () => {
  const bankAt = (more: Entry[], minute: number) => {
    const facts = standingFacts([...morning, ...more]);
    const memory = updateWithFacts(emptyMemory, facts, context);
    const nowMs = start + minute * MS_PER_MINUTE;
    return levelBank(benchState(facts, grinder, recipe, house, nowMs, memory).serviceCase());
  };
  const meanOf = ({ models, expectedAt }: ReturnType<typeof levelBank>, hours = 0): number =>
    models.reduce((sum, model) => sum + model.weight * expectedAt(model, 0, hours).mean, 0);
  const sdOf = (bank: ReturnType<typeof levelBank>): number =>
    Math.sqrt(bank.models.reduce((sum, model) => sum + model.weight * bank.expectedAt(model, 0).variance, 0));
  const trending = ({ models }: ReturnType<typeof levelBank>): number =>
    models.reduce((sum, { weight, wandering }) => sum + (wandering.trendSd > 0 ? weight : 0), 0);
  /** A timed shot every half hour, each slower than the one before. */
  const slowing = (until: number): Entry[] =>
    Array.from({ length: until }, (_, i) => timed(27.4 + 0.6 * (i + 1), 30 * (i + 1)));

  it('hears every timed shot since the lock: what slows by the hour is a trend, and goes on for a while', () => {
    const steady = [1, 2, 3, 4, 5, 6, 7, 8].map((i) => timed(27.4, 30 * i));
    expect(trending(bankAt(slowing(8), 241))).toBeGreaterThan(trending(bankAt(steady, 241)) + 0.1);
    const slower = bankAt(slowing(8), 241);
    expect(meanOf(slower, 1)).toBeGreaterThan(meanOf(slower) + 0.003);
  });

  it('stands where the bar’s one posterior stands, where nothing wandered', () => {
    const shots = [timed(27.2, 60), timed(27.6, 120), look('asItShould', 150)];
    const facts = standingFacts([...morning, ...shots]);
    const memory = updateWithFacts(emptyMemory, facts, context);
    const known = knownOf(posterior(memory, start + 151 * MS_PER_MINUTE), levelOf('grinder'))!;
    expect(meanOf(bankAt(shots, 151))).toBeCloseTo(known.mean, 1);
  });

  it('hears a look, with the noise that a look deserves', () => {
    const before = meanOf(bankAt([timed(27.4, 60)], 91));
    const byLook = meanOf(bankAt([timed(27.4, 60), look('slowDark', 90)], 91)) - before;
    const byShot = meanOf(bankAt([timed(27.4, 60), timed(33, 90)], 91)) - before;
    expect(byLook).toBeGreaterThan(0.005);
    expect(byShot).toBeGreaterThan(byLook);
  });

  it('is less sure after another bag, after doors that stand open, and by the hour', () => {
    const shot = timed(27.4, 60);
    const sure = sdOf(bankAt([shot], 62));
    expect(sdOf(bankAt([shot, make('newBag', {}, 61)], 62))).toBeGreaterThan(sure);
    expect(sdOf(bankAt([shot, happened('doors', 61)], 62))).toBeGreaterThan(sure);
    expect(sdOf(bankAt([shot], 180))).toBeGreaterThan(sure);
  });

  it('goes by the grinder’s days: one that slows every morning is expected to slow this morning', () => {
    const days: Entry[] = Array.from({ length: 14 }, (_, day) =>
      [0, 30, 60, 90, 120, 180, 240].map((minute) =>
        timed(27 * Math.exp(0.1 * Math.min(1, minute / 120)), (day - 14) * MINUTES_PER_DAY + minute + 2),
      ),
    ).flat();
    const facts = standingFacts([...days, ...morning]);
    const memory = updateWithFacts(emptyMemory, facts, context);
    const nowMs = start + 11 * MS_PER_MINUTE;
    const bank = levelBank(benchState(facts, grinder, recipe, house, nowMs, memory).serviceCase());
    expect(meanOf(bank, 1) - meanOf(bank)).toBeGreaterThan(0.02);
    expect(meanOf(bank, 5) - meanOf(bank, 4)).toBeLessThan(0.01);
  });
});
