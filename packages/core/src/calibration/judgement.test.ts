import { describe, expect, it } from 'vitest';
import { judgeLast } from './judgement.ts';
import { missOf } from './windowMiss.ts';
import { fitCase } from './fitCase.ts';
import { aCase, aShot } from './testCases.ts';

const judged = (change: Parameters<typeof aCase>[0]) => {
  const input = aCase(change);
  return judgeLast(input, fitCase(input, 30));
};

describe('the order of judgement: the first that applies wins', () => {
  const all = { fault: 'channel', doseG: 19, timeS: 40, setting: 26, purgedG: 0 } as const;
  const shots = [aShot(), aShot(all)];

  it.each([
    ['a move since', { shots, retentionG: 8, standsAt: 24 }, 'moved'],
    ['then a purge that was skipped', { shots, retentionG: 8 }, 'notPurged'],
    ['then a fault', { shots, retentionG: 0 }, 'noEvidence'],
    ['then the dose', { shots: [aShot(), aShot({ ...all, fault: null })], retentionG: 0 }, 'doseOff'],
    ['the dose before a choke', { shots: [aShot({ ...all, fault: 'choke' })] }, 'doseOff'],
    ['then the choke', { shots: [aShot({ fault: 'choke' })] }, 'choked'],
    ['then the time', { shots: [aShot({ timeS: 40 })] }, 'sound'],
    ['nothing', {}, 'noShot'],
  ] as const)('%s', (_what, change, kind) => {
    expect(judged(change).kind).toBe(kind);
  });

  it('takes a trimmed dose as right where the trim was asked for, and names it when it was missed', () => {
    // A coarse collar between two marks: three shots at 25.3 s ask for more coffee, so 18.5 g was what was asked.
    const coarse = { dial: { stepMarks: 1, finer: 'down', range: null }, secondsPerMark: 6 } as const;
    const slow = [25.3, 25.2, 25.4].map((timeS) => aShot({ timeS }));
    expect(judged({ ...coarse, shots: [...slow, aShot({ doseG: 18.6, timeS: 27 })] }).kind).toBe('sound');
    expect(judged({ ...coarse, shots: [...slow, aShot({ doseG: 17.5, timeS: 24 })] })).toMatchObject({
      kind: 'doseOff',
      doseG: expect.closeTo(18.3, 0),
    });
    expect(judged({ shots: [aShot(), aShot({ doseG: 18.6, timeS: 27 })] }).kind).toBe('doseOff');
  });

  it('measures the miss from the nearer edge, and none on it', () => {
    const misses = [20, 24.96, 25, 27, 30, 30.04, 33].map((timeS) => missOf(timeS, { min: 25, max: 30 }));
    expect(misses).toEqual([-5, 0, 0, 0, 0, 0, 3]);
  });
});
