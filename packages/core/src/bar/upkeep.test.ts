import { describe, expect, it } from 'vitest';
import { isLicensed, litresDrawn, upkeepState, upkeepStates, type UpkeepItem } from './index.ts';

const TODAY = '2031-05-20';
const item = (more: Partial<UpkeepItem>): UpkeepItem => ({
  what: 'filter',
  stationId: 'fern',
  months: null,
  count: null,
  lastOn: null,
  lastBy: null,
  counted: null,
  perDay: null,
  gapsDays: [],
  ...more,
});

describe('what falls due', () => {
  it.each<[string, Partial<UpkeepItem>, string, string | null]>([
    // 6 months are 182.6 days: 19 November to 20 May is 182.
    ['by the calendar, today in a day', { months: 6, lastOn: '2030-11-19' }, 'soon', '2031-05-21'],
    ['by the calendar, long over', { months: 6, lastOn: '2030-01-01' }, 'due', '2030-07-03'],
    ['by the calendar, far off', { months: 6, lastOn: '2031-05-01' }, 'fine', '2031-10-31'],
    [
      'by count, at its pace: 900 l left at 100 l a day',
      { count: 5_000, counted: 4_100, perDay: 100 },
      'fine',
      '2031-05-29',
    ],
    ['by count, used up', { count: 600, counted: 640, perDay: 5 }, 'due', TODAY],
    [
      'by count before its calendar',
      { months: 6, lastOn: '2031-05-01', count: 5_000, counted: 4_800, perDay: 100 },
      'soon',
      '2031-05-22',
    ],
    [
      'by the calendar before its count',
      { months: 6, lastOn: '2030-11-01', count: 5_000, counted: 100, perDay: 100 },
      'due',
      '2031-05-03',
    ],
    ['a rule, and nobody knows when it was last done', { months: 6 }, 'unknown', null],
    ['a count of which the pace is not known', { count: 600, counted: 100, perDay: 0 }, 'fine', null],
    ['neither a rule nor a habit', { lastOn: '2031-01-01' }, 'fine', null],
    // Done 40 and 50 days apart: 45 days after the first of April.
    ['by habit where no rule stands', { lastOn: '2031-04-01', gapsDays: [40, 50] }, 'due', '2031-05-16'],
    [
      'a stated rule is not stretched by having been late',
      { months: 1, lastOn: '2031-05-01', gapsDays: [90, 95] },
      'fine',
      '2031-05-31',
    ],
  ])('%s', (_, more, state, dueOn) => {
    expect(upkeepState(item(more), TODAY)).toMatchObject({ state, dueOn });
  });

  it('comes in the order in which it is due, the unknown before what is fine', () => {
    const states = upkeepStates(
      [
        item({ stationId: 'fine', months: 6, lastOn: '2031-05-01' }),
        item({ stationId: 'unknown', months: 6 }),
        item({ stationId: 'soon', months: 1, lastOn: '2031-04-24' }),
        item({ stationId: 'due', months: 1, lastOn: '2031-04-01' }),
      ],
      TODAY,
    );
    expect(states.map(({ item: { stationId } }) => stationId)).toEqual(['due', 'soon', 'unknown', 'fine']);
  });

  it('counts litres by the shots that coffee makes: 1.8 kg are 100 shots of 36 g and 60 ml of flushing', () => {
    expect(litresDrawn(1_800, { doseG: 18, yieldG: 36 })).toBeCloseTo(9.6, 6);
    // 1 kg brewed: 50 cups of 250 g and as much flushing each.
    expect(litresDrawn(1_000, { doseG: 20, yieldG: 250 })).toBeCloseTo(15.5, 6);
  });

  it('leaves descaling and service to licensed hands', () => {
    expect((['filter', 'descaling', 'service', 'burrs'] as const).map(isLicensed)).toEqual([false, true, true, false]);
  });
});
