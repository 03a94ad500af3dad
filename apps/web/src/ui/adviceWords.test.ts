import type { Advice } from '@tempera/core/calibration';
import { describe, expect, it } from 'vitest';
import { adviceTitle, judgementTitle } from './adviceWords.ts';

const advice = (change: object): Advice =>
  ({
    action: 'repeat',
    from: 30,
    setting: 30,
    marks: 0,
    doseG: null,
    direction: null,
    reasons: [],
    judgement: { kind: 'noShot' },
    ...change,
  }) as unknown as Advice;

describe('what to do, as it is called across the bar', () => {
  it.each([
    [{ action: 'move', setting: 28, marks: 2, direction: 'finer' }, 'Turn 2 marks finer: 30 to 28'],
    [{ action: 'move', setting: 31, marks: 1, direction: 'coarser' }, 'Turn 1 mark coarser: 30 to 31'],
    [{ action: 'move', from: 5, setting: 4.7, marks: 0.3, direction: 'finer' }, 'Turn 0.3 marks finer: 5 to 4.7'],
    [{ action: 'lock', setting: 28 }, 'Lock it at 28'],
    [{ action: 'dose', doseG: 18 }, 'Weigh 18.0 g and pull again'],
    [{ action: 'repeat' }, 'Pull a shot at 30'],
    [{ action: 'repeat', judgement: { kind: 'moved', to: 30 } }, 'Pull a shot at 30'],
    [{ action: 'repeat', judgement: { kind: 'sound', normalisedS: 27, missS: 0 } }, 'Pull the same again'],
    [
      {
        action: 'repeat',
        because: 'besides',
        judgement: { kind: 'sound', normalisedS: 14, missS: -11 },
        reasons: [{ code: 'besides', what: 'bagPast' }],
      },
      'Another bag first',
    ],
    [
      { action: 'repeat', doseG: 18.3, judgement: { kind: 'sound', normalisedS: 25.5, missS: 0 } },
      'Pull again with 18.3 g',
    ],
  ])('%#: %o', (change, title) => {
    expect(adviceTitle(advice(change))).toBe(title);
  });
});

describe('what the last shot was', () => {
  it.each([
    [{ kind: 'noShot' }, 'No shot yet'],
    [{ kind: 'moved', to: 27 }, 'The collar stands at 27'],
    [{ kind: 'notPurged', oldShare: 0.4 }, 'A blend of two settings'],
    [{ kind: 'noEvidence', fault: 'channel' }, 'A channel: no evidence'],
    [{ kind: 'noEvidence', fault: 'prep' }, 'A flawed puck: no evidence'],
    [{ kind: 'choked' }, 'Choked'],
    [{ kind: 'doseOff', byG: 0.62 }, 'The dose was 0.6 g over'],
    [{ kind: 'doseOff', byG: -0.5 }, 'The dose was 0.5 g under'],
    [{ kind: 'sound', normalisedS: 27, missS: 0 }, 'Inside the window'],
    [{ kind: 'sound', normalisedS: 22, missS: -3 }, '3.0 s too fast'],
    [{ kind: 'sound', normalisedS: 33.2, missS: 3.2 }, '3.2 s too slow'],
  ])('%#: %o', (judgement, title) => {
    expect(judgementTitle(advice({ judgement }))).toBe(title);
  });

  it('says that a collar was moved where only memory advises', () => {
    const reasons = [{ code: 'movedUnseen' as const, heldAt: 30, standsAt: 33 }];
    expect(judgementTitle(advice({ action: 'move', reasons }))).toBe('Moved since it last held');
    expect(judgementTitle(advice({ action: 'move' }))).toBe('No shot yet');
  });
});
