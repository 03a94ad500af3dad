import { describe, expect, it } from 'vitest';
import { standingFacts, type StepFact, type StepOf } from '../facts/index.ts';
import { judgeGauges, learnedWarmUp, warmthOf, warmUpsMin } from './warmUp.ts';

const start = Date.parse('2031-05-04T05:30:00Z');
let made = 0;
type MachineStep = StepOf<'switchedOn' | 'hot' | 'takenBack'>;
const step = (kind: MachineStep['step'], minutes: number, change: Partial<MachineStep> = {}): StepFact => ({
  id: `step ${(made += 1)}`,
  kind: 'step',
  at: new Date(start + minutes * 60_000).toISOString(),
  personId: 'ines',
  grinderId: null,
  groupId: null,
  body: { step: kind, machineId: 'fern', readings: [], takesBack: null, ...change },
});
const at = (minutes: number): number => start + minutes * 60_000;

describe('how a machine stands', () => {
  it('is not known, then warming, then hot, until the day is over', () => {
    const on = step('switchedOn', 0);
    const hot = step('hot', 24);
    expect(warmthOf(standingFacts([]), 'fern', at(0))).toEqual({ is: 'unknown' });
    expect(warmthOf(standingFacts([on]), 'fern', at(10))).toEqual({ is: 'warming', sinceMs: at(0) });
    expect(warmthOf(standingFacts([hot, on]), 'fern', at(30))).toEqual({ is: 'hot', sinceMs: at(24) });
    expect(warmthOf(standingFacts([on, hot]), 'moss', at(30))).toEqual({ is: 'unknown' });
    expect(warmthOf(standingFacts([on, hot]), 'fern', at(24 * 60))).toEqual({ is: 'unknown' });
  });

  it('goes back when a step is taken back', () => {
    const on = step('switchedOn', 0);
    const hot = step('hot', 3);
    const back = step('takenBack', 4, { takesBack: hot.id });
    expect(warmthOf(standingFacts([on, hot, back]), 'fern', at(5))).toEqual({ is: 'warming', sinceMs: at(0) });
    expect(warmUpsMin(standingFacts([on, hot, back]), 'fern')).toEqual([]);
  });
});

describe('what the mornings teach', () => {
  const mornings = [22, 26, 24].flatMap((took, day) => [
    step('switchedOn', day * 1_440),
    step('hot', day * 1_440 + took),
  ]);

  it('is the time from the switch to the gauges, of this machine', () => {
    expect(warmUpsMin(standingFacts(mornings), 'fern')).toEqual([22, 26, 24]);
    expect(warmUpsMin(standingFacts(mornings), 'moss')).toEqual([]);
    // Switched on twice: the second counts. Hot without a switch: nobody knows since when.
    expect(warmUpsMin(standingFacts([step('switchedOn', 0), step('switchedOn', 5), step('hot', 30)]), 'fern')).toEqual([
      25,
    ]);
    expect(warmUpsMin(standingFacts([step('hot', 30)]), 'fern')).toEqual([]);
    expect(warmUpsMin(standingFacts([step('switchedOn', 0), step('hot', 500)]), 'fern')).toEqual([]);
  });

  it('begins with the sheet, and leaves it as mornings come in', () => {
    expect(learnedWarmUp(30, [])).toEqual({ meanMin: 30, sdMin: Math.sqrt(36 + 16) });
    // (30 / 36 + 72 / 16) / (1 / 36 + 3 / 16) = 5.3333 / 0.21528
    const learned = learnedWarmUp(30, [22, 26, 24]);
    expect(learned.meanMin).toBeCloseTo(24.774, 3);
    expect(learned.sdMin).toBeCloseTo(Math.sqrt(1 / 0.215278 + 16), 3);
  });
});

describe('gauges', () => {
  const gauges = [
    { name: 'Steam', unit: 'bar', min: 1, max: 1.5 },
    { name: 'Brew', unit: 'bar', min: 8, max: 9.5 },
  ];
  it.each([
    [
      [1.2, 9],
      ['inside', 'inside'],
    ],
    [
      [1, 9.5],
      ['inside', 'inside'],
    ],
    [
      [0.4, 9.6],
      ['low', 'high'],
    ],
    [
      [1.2, NaN],
      ['inside', 'unread'],
    ],
  ])('%o: %o', (values, expected) => {
    const readings = values.map((value, i) => ({ gauge: gauges[i]!.name, value }));
    expect(judgeGauges(gauges, readings).map(({ verdict }) => verdict)).toEqual(expected);
  });

  it('that nobody read are unread', () => {
    expect(judgeGauges(gauges, []).map(({ verdict }) => verdict)).toEqual(['unread', 'unread']);
  });
});
