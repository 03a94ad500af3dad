import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { usualPolicy } from './adviceCase.ts';
import { advise } from './advise.ts';
import { marksFiner } from './dial.ts';
import { aCase, aShot } from './testCases.ts';

describe('judgement before advice', () => {
  it('says where to start when nothing was pulled', () => {
    const advice = advise(aCase({ standsAt: 22 }));
    expect(advice).toMatchObject({ action: 'repeat', from: 22, setting: 22, purgeG: 0 });
  });

  it('repeats after a channel, however fast it ran', () => {
    const advice = advise(aCase({ shots: [aShot({ timeS: 14, fault: 'channel' })] }));
    expect(advice).toMatchObject({
      action: 'repeat',
      setting: 30,
      judgement: { kind: 'noEvidence', fault: 'channel' },
    });
    expect(advice.predicted.timeS).toBeCloseTo(27.4, 1);
  });

  it('puts a wrong dose right before the collar', () => {
    const advice = advise(aCase({ shots: [aShot({ doseG: 18.6, timeS: 34 })] }));
    expect(advice).toMatchObject({ action: 'dose', setting: 30, doseG: 18 });
    expect(advice.reasons[0]).toMatchObject({ code: 'doseOff', byG: expect.closeTo(0.6, 5) as number });
  });

  it('takes a dose exactly at its tolerance as right', () => {
    expect(advise(aCase({ shots: [aShot({ doseG: 18.3 })] })).action).not.toBe('dose');
    expect(advise(aCase({ shots: [aShot({ doseG: 17.7 })] })).action).not.toBe('dose');
    expect(advise(aCase({ shots: [aShot({ doseG: 18.4 })] })).action).toBe('dose');
  });

  it('asks for the purge when the last shot was mostly old grounds', () => {
    const shots = [aShot({ timeS: 20 }), aShot({ setting: 28, timeS: 21, purgedG: 0 })];
    const advice = advise(aCase({ shots, retentionG: 6 }));
    expect(advice).toMatchObject({ action: 'repeat', setting: 28, judgement: { kind: 'notPurged' } });
    expect(advice.purgeG).toBeGreaterThan(10);
  });

  it('asks only for what is still missing of the purge', () => {
    const shots = [aShot({ timeS: 20 })];
    const moved = aCase({ shots, standsAt: 28, retentionG: 6 });
    const whole = advise(moved).purgeG;
    expect(advise({ ...moved, purgedG: 5 }).purgeG).toBe(whole - 5);
    expect(advise({ ...moved, purgedG: 30 }).purgeG).toBe(0);
  });

  it('gives a choke a bigger move than a slow shot, and coarser', () => {
    const slow = advise(aCase({ shots: [aShot({ timeS: 34 })] }));
    const choked = advise(aCase({ shots: [aShot({ timeS: 45, yieldG: 5, fault: 'choke', firstDropS: null })] }));
    expect(slow.direction).toBe('coarser');
    expect(choked.direction).toBe('coarser');
    expect(choked.marks).toBeGreaterThan(slow.marks);
  });
});

describe('the move', () => {
  it('turns a fast shot finer by about the miss over what a mark is worth', () => {
    // 22.1 s and 36.4 g: about 21.7 s at the recipe, 5.7 s below the middle; a mark is worth about 2.5 s.
    const shot = aShot({ doseG: 18.1, yieldG: 36.4, timeS: 22.1, firstDropS: 5, purgedG: 20 });
    const advice = advise(aCase({ shots: [shot] }));
    expect(advice).toMatchObject({ action: 'move', direction: 'finer', setting: 28, marks: 2 });
    expect(advice.predicted.lowS).toBeLessThan(advice.predicted.timeS);
    expect(advice.predicted.highS).toBeGreaterThan(advice.predicted.timeS);
    expect(advice.purgeG).toBeGreaterThan(0);
  });

  it('reads a dial that counts up to finer the other way round', () => {
    const advice = advise(aCase({ dial: { stepMarks: 1, finer: 'up', range: null }, shots: [aShot({ timeS: 21 })] }));
    expect(advice.direction).toBe('finer');
    expect(advice.setting).toBeGreaterThan(30);
  });

  it('goes part of the way back after an overshoot, and says so', () => {
    const shots = [aShot({ timeS: 20 }), aShot({ setting: 26, timeS: 36, purgedG: 25 })];
    const advice = advise(aCase({ shots }));
    expect(advice.action).toBe('move');
    expect(advice.setting).toBeGreaterThan(26);
    expect(advice.setting).toBeLessThan(30);
    expect(advice.reasons).toContainEqual({ code: 'overshot' });
  });

  it('does not chase a shot that is just outside when the rest was inside', () => {
    const shots = [aShot({ timeS: 27 }), aShot({ timeS: 27.6 }), aShot({ timeS: 24.8 })];
    expect(advise(aCase({ shots })).action).not.toBe('move');
  });

  it('learns what a mark is worth and uses it', () => {
    const shots = [
      aShot({ timeS: 18 }),
      aShot({ setting: 28, timeS: 19, purgedG: 30 }),
      aShot({ setting: 25, timeS: 21, purgedG: 30 }),
    ];
    const learned = advise(aCase({ shots }));
    const believed = advise(aCase({ shots: [aShot({ setting: 25, timeS: 21 })] }));
    expect(learned.marks).toBeGreaterThan(believed.marks);
  });

  it('puts a collar back that was moved since it last held, without a shot', () => {
    const advice = advise(
      aCase({ standsAt: 33, held: { setting: 30, timeS: 27.5 }, since: { newBag: false, hours: 14 } }),
    );
    expect(advice).toMatchObject({ action: 'move', from: 33, setting: 30, direction: 'finer' });
  });

  it('puts it back to where it held, though the mark beside it is a little likelier', () => {
    const held = { setting: 30, timeS: 28.3 };
    const since = { newBag: false, hours: 2 };
    expect(advise(aCase({ standsAt: 33, held, since })).setting).toBe(30);
    expect(advise(aCase({ standsAt: 33, held: { ...held, timeS: 31.5 }, since })).setting).toBe(32);
  });

  it('steps by tenths on a stepless dial', () => {
    const advice = advise(
      aCase({
        dial: { stepMarks: 0.1, finer: 'down', range: null },
        secondsPerMark: 14,
        shots: [aShot({ setting: 5, timeS: 23 })],
      }),
    );
    expect(advice.setting).toBe(4.7);
  });
});

describe('the lock', () => {
  it('locks on a shot inside when the grinder held yesterday', () => {
    const advice = advise(aCase({ since: { newBag: false, hours: 2 }, shots: [aShot({ timeS: 27.2 })] }));
    expect(advice).toMatchObject({ action: 'lock', setting: 30, purgeG: 0 });
    expect(advice.predicted.inWindow).toBeGreaterThanOrEqual(0.9);
  });

  it('asks for more when the grinder has never held', () => {
    expect(advise(aCase({ since: null, shots: [aShot({ timeS: 26 })] })).action).toBe('repeat');
    const three = [aShot({ timeS: 27.2 }), aShot({ timeS: 27.8 }), aShot({ timeS: 26.9 })];
    expect(advise(aCase({ since: null, shots: three })).action).toBe('lock');
  });

  it('follows the sureness of the house', () => {
    const shots = [aShot({ timeS: 27.2 })];
    expect(advise(aCase({ house: { ...usualPolicy, sureness: 0.99 }, shots })).action).toBe('repeat');
  });

  it('never locks without a sound shot at this setting', () => {
    const shots = [aShot({ timeS: 27.2, fault: 'prep' })];
    expect(advise(aCase({ since: { newBag: false, hours: 0 }, shots })).action).toBe('repeat');
  });

  it('ends on a coarse dial that no mark satisfies, at the likeliest mark', () => {
    const shots = Array.from({ length: 12 }, (_, i) => aShot({ timeS: i % 2 ? 25.4 : 25 }));
    const dial = { stepMarks: 4, finer: 'down', range: null } as const;
    const house = { ...usualPolicy, trim: 'none' } as const;
    const advice = advise(aCase({ dial, house, shots }));
    expect(advice.action).toBe('lock');
    expect(advice.reasons.map(({ code }) => code)).toContain('noLikelierMark');
  });
});

describe('the next check', () => {
  it('stays between five minutes and two hours, and comes sooner when less sure', () => {
    const house = { ...usualPolicy, longestCheckMin: 120 };
    const sure = advise(aCase({ house, shots: Array.from({ length: 6 }, () => aShot({ timeS: 27.4 })) }));
    const unsure = advise(aCase({ house, since: null, shots: [aShot({ timeS: 25.5 })] }));
    expect(sure.nextCheckMin).toBeLessThanOrEqual(120);
    expect(unsure.nextCheckMin).toBeGreaterThanOrEqual(5);
    expect(sure.nextCheckMin).toBeGreaterThan(unsure.nextCheckMin);
  });
});

describe('whatever it hears', () => {
  const shot = fc.record({
    setting: fc.integer({ min: 1, max: 60 }),
    doseG: fc.double({ min: 14, max: 22, noNaN: true }),
    yieldG: fc.double({ min: 5, max: 80, noNaN: true }),
    timeS: fc.double({ min: 3, max: 120, noNaN: true }),
    firstDropS: fc.option(fc.double({ min: 0, max: 30, noNaN: true })),
    purgedG: fc.option(fc.double({ min: 0, max: 40, noNaN: true })),
    fault: fc.constantFrom(null, 'channel', 'prep', 'choke'),
    atMs: fc.constant(null),
    group: fc.constant(null),
  });

  it('never points outside the dial, and never says NaN', () => {
    fc.assert(
      fc.property(fc.array(shot, { maxLength: 12 }), fc.constantFrom('down', 'up'), (shots, finer) => {
        const advice = advise(
          aCase({
            dial: { stepMarks: 1, finer, range: { min: 1, max: 60 } },
            shots,
            standsAt: shots.at(-1)?.setting ?? 30,
          }),
        );
        expect(advice.setting).toBeGreaterThanOrEqual(1);
        expect(advice.setting).toBeLessThanOrEqual(60);
        for (const number of [advice.predicted.timeS, advice.predicted.lowS, advice.predicted.highS, advice.purgeG]) {
          expect(Number.isFinite(number)).toBe(true);
        }
        expect(advice.predicted.inWindow).toBeGreaterThanOrEqual(0);
        expect(advice.predicted.inWindow).toBeLessThanOrEqual(1);
        expect(advice.reasons.length).toBeGreaterThan(0);
      }),
      { seed: 20260302, numRuns: 400 },
    );
  });

  it('never turns finer after a lone sound shot that was too slow, nor coarser after one too fast', () => {
    const conditions = fc.record({
      secondsPerMark: fc.option(fc.double({ min: 0.5, max: 8, noNaN: true })),
      hours: fc.option(fc.double({ min: 0, max: 200, noNaN: true })),
      finer: fc.constantFrom('down' as const, 'up' as const),
      slow: fc.boolean(),
      missS: fc.double({ min: 0.1, max: 14, noNaN: true }),
    });
    fc.assert(
      fc.property(conditions, ({ secondsPerMark, hours, finer, slow, missS }) => {
        const dial = { stepMarks: 1, finer, range: null };
        const lone = aShot({ timeS: slow ? 30 + missS : 25 - missS });
        const since = hours === null ? null : { newBag: false, hours };
        const advice = advise(aCase({ dial, secondsPerMark, since, shots: [lone] }));
        const finerBy = marksFiner(dial, advice.setting, 30);
        if (slow) expect(finerBy).toBeLessThanOrEqual(0);
        else expect(finerBy).toBeGreaterThanOrEqual(0);
      }),
      { seed: 20260303, numRuns: 400 },
    );
  });
});
