import { describe, expect, it } from 'vitest';
import { standingFacts, type Entry } from '../facts/index.ts';
import { factMaker, stepMaker } from '../facts/testFacts.ts';
import { benchState } from './benchState.ts';
import { advise } from './advise.ts';
import { aCase } from './testCases.ts';

const grinder = {
  id: 'grinder',
  dial: { stepMarks: 1, finer: 'down' as const, range: { min: 1, max: 60 } },
  secondsPerMark: 2.5,
  retentionG: null,
  seedSetting: 24,
};
const { recipe, house } = aCase();
const start = '2031-05-04T06:00:00Z';
const stateOf = (facts: readonly Entry[], minutes = 100) =>
  benchState(standingFacts(facts), grinder, recipe, house, Date.parse(start) + minutes * 60_000, null);

describe('a bench from its facts', () => {
  it('stands at its seed setting with nothing known', () => {
    const state = stateOf([]);
    expect(state).toMatchObject({ setting: 24, lastLock: null, shots: [] });
    expect(state.adviceCase.since).toBeNull();
  });

  it('follows the collar through shots, moves and locks, in any order of arrival', () => {
    const make = factMaker(start);
    const facts = [
      make('shot', { setting: 30 }),
      make('collarMove', { from: 30, to: 27 }),
      make('purge', { purgeG: 12 }),
    ];
    expect(stateOf(facts.toReversed()).setting).toBe(27);
    expect(stateOf([...facts, make('lock', { setting: 26 })]).setting).toBe(26);
  });

  it('counts purges to the shot after the move they follow', () => {
    const make = factMaker(start);
    const facts = [
      make('purge', { purgeG: 5 }),
      make('shot'),
      make('collarMove', { from: 30, to: 28 }),
      make('purge', { purgeG: 8 }),
      make('purge', { purgeG: 4 }),
      make('shot', { setting: 28 }),
    ];
    expect(stateOf(facts).adviceCase.shots.map((shot) => shot.purgedG)).toEqual([5, 12]);
    expect(stateOf(facts.slice(0, 5)).adviceCase).toMatchObject({ purgedG: 12, standsAt: 28 });
  });

  it('counts doses that were thrown away as a purge, at the bench and in the opening', () => {
    const make = factMaker(start);
    const step = stepMaker(start);
    const found = { step: 'doseTime', grinderId: 'grinder', way: 'timed', discardedG: 18, grindTimeS: 9, holds: true };
    const facts = [
      make('shot'),
      make('collarMove', { from: 30, to: 28 }),
      step({ ...found, dosesG: [17, 18] } as never, 3),
      make('dose', { doseG: 16 }, 4),
      make('dose', { doseG: 18 }, 5),
      make('shot', { setting: 28 }, 6),
    ];
    expect(stateOf(facts).adviceCase.shots.map(({ purgedG }) => purgedG)).toEqual([0, 18 + 17 + 18 + 16]);
    expect(stateOf(facts.slice(0, 5)).adviceCase.purgedG).toBe(69);
  });

  it('turns flaws into what the engine hears', () => {
    const make = factMaker(start);
    const flaws = [null, 'channel', 'uneven', 'wrongDose', 'choke', 'other'] as const;
    const facts = flaws.map((flaw) => make('shot', { flaw }));
    expect(stateOf(facts).adviceCase.shots.map((shot) => shot.fault)).toEqual([
      null,
      'channel',
      'prep',
      'prep',
      'choke',
      'prep',
    ]);
  });

  it('begins anew at a lock, remembering where and how it held', () => {
    const make = factMaker(start);
    const facts = [make('shot'), make('lock', { setting: 30 }, 2), make('shot', { timeS: 29 }, 122)];
    const { adviceCase, shots, lastLock } = stateOf(facts, 130);
    expect(lastLock?.kind).toBe('lock');
    expect(shots).toHaveLength(1);
    expect(adviceCase.since).toEqual({ newBag: false, newCoffee: false, hours: 2 });
    expect(adviceCase.held).toEqual({ setting: 30, timeS: 27 });
  });

  it('a collar that was turned for taste is pulled before it is put back; one that somebody else turned since is not', () => {
    const make = factMaker(start);
    const step = stepMaker(start);
    const locked = [make('shot', {}, 1), make('lock', { setting: 30, chance: 0.98 }, 2)];
    const turned = [
      step({ step: 'tasteSettled', grinderId: 'grinder', change: { lever: 'grind', by: -1 } }, 3),
      make('collarMove', { from: 30, to: 36, advisedTo: 36 }, 3),
    ];
    const asked = stateOf([...locked, ...turned]).adviceCase;
    expect(advise(asked)).toMatchObject({ action: 'repeat', setting: 36 });
    const bumped = stateOf([...locked, ...turned, make('collarMove', { from: 36, to: 37, advisedTo: null }, 5)]);
    expect(advise(bumped.adviceCase)).toMatchObject({ action: 'move', setting: 30 });
    expect(advise(stateOf([...locked, turned[1]!]).adviceCase)).toMatchObject({ action: 'move', setting: 30 });
  });

  it('weighs what taste asks for, and no longer the trim from before', () => {
    const make = factMaker(start);
    const step = stepMaker(start);
    const trimmed = [make('shot', { doseG: 18.3 }, 1), make('lock', { doseG: 18.3 }, 2)];
    expect(stateOf(trimmed).adviceCase.trimG).toBeCloseTo(0.3, 9);
    const less = step({ step: 'tasteSettled', grinderId: 'grinder', change: { lever: 'dose', by: -0.4 } }, 3);
    expect(stateOf([...trimmed, less]).adviceCase.trimG).toBe(0);
  });

  it('uncovers the lock before when a lock is withdrawn', () => {
    const make = factMaker(start);
    const first = make('lock', { setting: 30 });
    const second = make('lock', { setting: 28 });
    const gone = make('correction', { factId: second.id, withdrawn: true });
    expect(stateOf([first, second, gone]).lastLock?.id).toBe(first.id);
  });

  it('gives the grind time at the setting that is advised', () => {
    const make = factMaker(start);
    const state = stateOf([make('dose', { doseG: 18, grindTimeS: 9.3 }), make('shot', { timeS: 20 })]);
    expect(state.grindTimeS(18, 30)).toBeCloseTo(9.3, 10);
    expect(state.grindTimeS(18, 25)).toBeCloseTo(10.2, 10);
  });

  it('lets the seconds follow the dose of this morning, whatever was weighed the days before', () => {
    const make = factMaker(start);
    const dayBeforeMin = -20 * 60;
    const days = Array.from({ length: 8 }, (_, i) =>
      make('dose', { doseG: 20, grindTimeS: 7.2 }, dayBeforeMin + 3 * i),
    );
    const first = make('dose', { doseG: 19.3, grindTimeS: 7.2 });
    expect(stateOf(days).grindTimeS(20, 30)).toBeCloseTo(7.2, 10);
    expect(stateOf([...days, first]).grindTimeS(20, 30)).toBeGreaterThanOrEqual(7.4);
    // Another bag in between says more still.
    const bag = make('newBag', { otherCoffee: false });
    const after = make('dose', { doseG: 18.6, grindTimeS: 7.4 });
    expect(stateOf([...days, first, bag, after]).grindTimeS(20, 30)).toBeGreaterThanOrEqual(7.8);
  });

  it('learns the grind time from doses weighed before the bench, at the mark where the collar stood then', () => {
    const make = factMaker(start);
    const step = stepMaker(start);
    const weighed = step(
      {
        step: 'doseTime',
        grinderId: 'grinder',
        way: 'timed',
        discardedG: 18,
        grindTimeS: 9.3,
        dosesG: [18, 18, 18],
        holds: true,
      },
      -1,
    );
    expect(stateOf([weighed]).grindTimeS(18, 24)).toBeCloseTo(9.3, 10);
    // Later moved five marks finer: it grinds more slowly there, and the doses still speak of mark 24.
    const moved = stateOf([weighed, make('collarMove', { from: 24, to: 19 })]);
    expect(moved.grindTimeS(18, 24)).toBeCloseTo(9.3, 10);
    expect(moved.grindTimeS(18, 19)).toBeGreaterThan(9.9);
  });

  it('walks a morning: off, moved, purged, inside, locked', () => {
    const make = factMaker(start);
    const facts = [make('lock', { setting: 30 }, -800), make('dose'), make('shot', { timeS: 21 })];
    const move = advise(stateOf(facts).adviceCase);
    expect(move).toMatchObject({ action: 'move', direction: 'finer' });
    facts.push(
      make('collarMove', { from: 30, to: move.setting, advisedTo: move.setting }),
      make('purge', { purgeG: move.purgeG }),
    );
    expect(advise(stateOf(facts).adviceCase)).toMatchObject({ action: 'repeat', setting: move.setting, purgeG: 0 });
    facts.push(
      make('shot', { setting: move.setting, timeS: 27.4 }),
      make('shot', { setting: move.setting, timeS: 27.6 }),
    );
    expect(advise(stateOf(facts, 10).adviceCase)).toMatchObject({ action: 'lock', setting: move.setting });
  });

  it('hears another bag as doubt: before the first shot and between two', () => {
    const make = factMaker(start);
    const lock = make('lock', { setting: 30 }, 0);
    const [bag, shot] = [make('newBag', {}, 10), make('shot', { timeS: 27.4 }, 20)];
    const doubt = (facts: readonly Entry[]): number => advise(stateOf(facts, 21).adviceCase).here.sd;
    expect(stateOf([lock, bag], 11)).toMatchObject({ newBagAtMs: Date.parse(start) + 600_000 });
    expect(stateOf([lock, bag, shot]).newBagAtMs).toBeNull();
    expect(stateOf([lock, bag, shot]).adviceCase.since).toMatchObject({ newBag: true });
    expect(doubt([lock, bag])).toBeGreaterThan(doubt([lock]) + 0.03);
    // A bag after the shot: what the shot said is of another bed.
    expect(doubt([lock, shot, make('newBag', {}, 20.5)])).toBeGreaterThan(doubt([lock, shot]) + 0.03);
  });
});
