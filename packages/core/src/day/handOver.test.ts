import { describe, expect, it } from 'vitest';
import { aCase } from '../calibration/testCases.ts';
import { standingFacts, type Entry } from '../facts/index.ts';
import { factMaker, stepMaker } from '../facts/testFacts.ts';
import { MS_PER_MINUTE } from '../numbers/index.ts';
import { lastOnMs, openNotes, stationChanges, waitingHandOver } from './handOver.ts';

const start = Date.parse('2031-05-04T06:00:00Z');
const at = (minute: number): number => start + minute * MS_PER_MINUTE;
const make = factMaker();
const step = stepMaker();
const { recipe } = aCase();
const changes = (entries: Entry[], sinceMin: number) =>
  stationChanges(standingFacts(entries), ['grinder', 'other'], at(sinceMin), () => recipe);

describe('what changed since somebody was last on', () => {
  const day: Entry[] = [
    make('collarMove', { from: 31, to: 30 }, 5),
    make('shot', { timeS: 27 }, 10),
    make('collarMove', { from: 30, to: 29, service: true }, 60),
    make('shot', { timeS: 28, check: true, service: true }, 65),
    make('shot', { timeS: 19, check: true, service: true, flaw: 'channel' }, 66),
    make('collarMove', { from: 29, to: 28, service: true }, 90),
    make('newBag', {}, 95),
    step({ step: 'putOff', grinderId: 'grinder', minutes: 15 }, 100),
  ];

  it('is one move from where it stood to where it stands, the sound shots, the bags, and what is put off', () => {
    const [own, other] = changes(day, 30);
    expect(own).toMatchObject({ moved: { from: 30, to: 28, times: 2 }, bags: 1, putOff: true });
    expect(own?.timesS).toHaveLength(1);
    expect(own?.timesS[0]).toBeCloseTo(28);
    expect(other).toEqual({ grinderId: 'other', moved: null, timesS: [], bags: 0, putOff: false });
  });

  it('is no move where the collar came back, and nothing is put off once somebody looked', () => {
    const back = make('collarMove', { from: 28, to: 30, service: true }, 110);
    const looked = make('shot', { timeS: 27, check: true, service: true }, 111);
    expect(changes([...day, back, looked], 30)[0]).toMatchObject({ moved: null, putOff: false });
  });

  it('knows when somebody was last there by what they wrote', () => {
    const mine = { ...make('purge', {}, 40), personId: 'mara' };
    const facts = standingFacts([...day, mine]);
    expect(lastOnMs(facts, 'mara')).toBe(at(40));
    expect(lastOnMs(facts, 'nobody')).toBeNull();
  });
});

describe('notes and hand-overs', () => {
  it('are open until somebody calls them done, or takes them over', () => {
    const about = { grinderId: 'grinder', coffeeId: null };
    const [sticks, leaks] = [
      step({ step: 'note', text: 'The collar sticks', ...about }, 1),
      step({ step: 'note', text: 'A gasket leaks', ...about, grinderId: null }, 2),
    ];
    const done = step({ step: 'noteDone', noteId: sticks.id }, 3);
    expect(openNotes(standingFacts([sticks, leaks, done])).map(({ body }) => body.text)).toEqual(['A gasket leaks']);
    const [first, second] = [5, 50].map((minute) => step({ step: 'handedOver', says: ['House at 29'] }, minute));
    const taken = step({ step: 'takenOver', handedOverId: first!.id }, 6);
    expect(waitingHandOver(standingFacts([first!]))?.id).toBe(first!.id);
    expect(waitingHandOver(standingFacts([first!, taken]))).toBeNull();
    expect(waitingHandOver(standingFacts([first!, taken, second!]))?.id).toBe(second!.id);
  });
});
