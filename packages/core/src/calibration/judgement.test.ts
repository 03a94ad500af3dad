import { describe, expect, it } from 'vitest';
import { judgeLast, missOf } from './judgement.ts';
import { learn } from './learn.ts';
import { aCase, aShot } from './testCases.ts';

const judged = (change: Parameters<typeof aCase>[0]) => {
  const input = aCase(change);
  return judgeLast(input, learn(input, 30).heard);
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

  it('measures the miss from the nearer edge, and none on it', () => {
    expect([20, 25, 27, 30, 33].map((timeS) => missOf(timeS, { min: 25, max: 30 }))).toEqual([-5, 0, 0, 0, 3]);
  });
});
