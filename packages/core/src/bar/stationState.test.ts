import { describe, expect, it } from 'vitest';
import { lastOfKind, standingFacts, type Entry } from '../facts/index.ts';
import { factMaker, stepMaker } from '../facts/testFacts.ts';
import { checkDue, grinderState, nextGrinder, servesToday, type GrinderState, type HoldState } from './stationState.ts';

const start = '2031-05-04T06:00:00Z';
const standing = (facts: readonly Entry[], minutes: number, openingMin: number | null = null) =>
  grinderState(standingFacts(facts), { id: 'grinder', seedSetting: 12 }, at(minutes), {
    openingFromMs: openingMin === null ? null : at(openingMin),
  });
const at = (minutes: number): number => Date.parse(start) + minutes * 60_000;

describe('whether a grinder serves', () => {
  const site = { timeZone: 'UTC', dayStartsMin: 4 * 60 };
  const make = factMaker(start);
  /** It was locked at 6:00; its business day turns at 4:00, 22 h later. */
  const serves = (minutes: number, ...more: Entry[]): boolean =>
    servesToday(standing([make('lock', { nextCheckMin: 60 }, 0), ...more], minutes), site, at(minutes));
  const hours = (n: number): number => n * 60;

  it('does all day, and through the night while its cups are looked at', () => {
    expect(serves(hours(21.9))).toBe(true);
    expect(serves(hours(22.1))).toBe(false);
    const timed = make('shot', { check: true, service: true }, hours(21.5));
    expect(serves(hours(22.1), timed)).toBe(true);
    expect(serves(hours(23.4), timed)).toBe(true);
    expect(serves(hours(23.6), timed)).toBe(false);
    expect(serves(hours(22.1), make('seen', { sign: 'asItShould' }, hours(21.5)))).toBe(true);
  });

  it('does for a shift after a lock of the evening, and not while somebody dials it in', () => {
    const late = make('lock', { nextCheckMin: 60 }, hours(21));
    expect(serves(hours(28.9), late)).toBe(true);
    expect(serves(hours(29.1), late)).toBe(false);
    expect(serves(hours(1), make('collarMove', { from: 30, to: 29 }, 30))).toBe(false);
  });

  it('does not for a check that somebody pulled before the next opening', () => {
    expect(serves(hours(24), make('shot', { check: true }, hours(23.9)))).toBe(false);
  });
});

describe('how a grinder stands', () => {
  it('has never held without a lock', () => {
    expect(standing([], 0)).toMatchObject({ standing: 'never', setting: 12, dueAtMs: null });
  });

  it('holds until its check falls due', () => {
    const lock = factMaker(start)('lock', { setting: 30, nextCheckMin: 60 }, 0);
    expect(standing([lock], 59)).toMatchObject({ standing: 'held', setting: 30, dueAtMs: at(60) });
    expect(standing([lock], 60).standing).toBe('due');
  });

  it('is due when the day’s controller says so, where it says anything', () => {
    const lock = factMaker(start)('lock', { setting: 30, nextCheckMin: 60 }, 0);
    const stateAt = (minutes: number, clockMin: number | null) =>
      grinderState(standingFacts([lock]), { id: 'grinder', seedSetting: 30 }, at(minutes), {
        clockMs: clockMin === null ? null : at(clockMin),
      }).standing;
    expect([stateAt(59, null), stateAt(60, null), stateAt(40, 35), stateAt(80, 90)]).toEqual([
      'held',
      'due',
      'due',
      'held',
    ]);
  });

  it('takes a customer’s timed shot for a look at another bag, and the check of a group for none', () => {
    const make = factMaker(start);
    const facts = [make('lock', { setting: 30, nextCheckMin: 60 }, 0), make('newBag', {}, 20)];
    const served = make('shot', { check: true, service: true }, 25);
    const checked = make('shot', { check: true }, 25);
    expect(standing([...facts, checked], 30).newBagAtMs).toBe(at(20));
    expect(standing([...facts, served], 30)).toMatchObject({ newBagAtMs: null, standing: 'held' });
  });

  it('is due at once when taste changed what it aims at, until a sound shot was poured so', () => {
    const make = factMaker(start);
    const lock = make('lock', { nextCheckMin: 60 }, 0);
    const taste = { step: 'tasteSettled', grinderId: 'grinder', change: { lever: 'yield', by: 0.06 } } as const;
    const tasted = stepMaker(start)(taste, 10);
    expect(standing([lock, tasted], 11)).toMatchObject({ standing: 'due', dueAtMs: at(10), dueCause: 'taste' });
    const flawed = make('shot', { service: true, check: true, flaw: 'channel' }, 12);
    expect(standing([lock, tasted, flawed], 13).standing).toBe('due');
    const served = make('shot', { service: true, check: true }, 14);
    expect(standing([lock, tasted, flawed, served], 15).standing).toBe('held');
    expect(standing([tasted, make('lock', { nextCheckMin: 60 }, 20)], 21).standing).toBe('held');
  });

  it('is due when an aim is undone that was locked, and not when it was changed and undone since', () => {
    const make = factMaker(start);
    const step = stepMaker(start);
    const served = { check: true, service: true };
    const tasted = step({ step: 'tasteSettled', grinderId: 'grinder', change: { lever: 'yield', by: 0.06 } }, 10);
    const undo = step({ step: 'takenBack', machineId: null, readings: [], takesBack: tasted.id }, 30);
    const lockedAt = (minutes: number) => make('lock', { nextCheckMin: 60 }, minutes);
    expect(standing([tasted, lockedAt(20), undo], 31)).toMatchObject({ standing: 'due', dueCause: 'taste' });
    expect(standing([tasted, lockedAt(20), undo, make('shot', served, 32)], 33).standing).toBe('held');
    expect(standing([lockedAt(5), tasted, make('shot', served, 12), undo], 31).standing).toBe('held');
  });

  it('is due at once when another bag went in, until a shot was pulled of it', () => {
    const make = factMaker(start);
    const lock = make('lock', { nextCheckMin: 60 }, 0);
    const bag = make('newBag', {}, 10);
    expect(standing([lock, bag], 11)).toMatchObject({
      standing: 'due',
      dueAtMs: at(10),
      newBagAtMs: at(10),
    });
    expect(standing([lock, bag, make('shot', {}, 12)], 13)).toMatchObject({ newBagAtMs: null });
    expect(standing([bag, make('lock', { nextCheckMin: 60 }, 20)], 21).standing).toBe('held');
  });

  it('is due from the begin of an opening, when it was locked before', () => {
    const lock = factMaker(start)('lock', { nextCheckMin: 600 }, 0);
    expect(standing([lock], 40, 30)).toMatchObject({ standing: 'due', dueAtMs: at(30), dueCause: 'opening' });
    // What was locked shortly before the run counts; what was not is due since the run began, and not since before it.
    const due = { newBagAtMs: null, aimChangedAtMs: null, openingFromMs: at(30), runFromMs: at(60), clockMs: at(90) };
    expect(checkDue(lastOfKind(standingFacts([lock]), 'lock'), due)).toEqual({ atMs: at(60), cause: 'opening' });
    expect(standing([lock], 40, -5).standing).toBe('held');
  });

  it('is being dialled in once somebody pulled or turned', () => {
    const make = factMaker(start);
    const lock = make('lock', {}, 0);
    expect(standing([lock, make('collarMove', { to: 33 }, 5)], 10)).toMatchObject({
      standing: 'dialling',
      setting: 33,
      shotsSince: 0,
    });
    expect(standing([lock, make('shot', {}, 5)], 10)).toMatchObject({
      standing: 'dialling',
      shotsSince: 1,
    });
    expect(standing([lock, make('purge', {}, 5)], 10).standing).toBe('held');
  });
});

describe('which grinder needs a hand first', () => {
  const one = (standing: HoldState, dueAtMs: number | null = null) => ({
    state: {
      standing,
      dueAtMs,
      dueCause: null,
      newBagAtMs: null,
      setting: 1,
      lastLock: null,
      shotsSince: 0,
      servedAtMs: null,
    } satisfies GrinderState,
  });

  it('finishes what was begun, then the longest due, then the new one; none when all hold', () => {
    const [begun, dueLong, due, never, held] = [
      one('dialling'),
      one('due', 1),
      one('due', 2),
      one('never'),
      one('held', 3),
    ];
    expect(nextGrinder([held, never, due, dueLong, begun])).toBe(begun);
    expect(nextGrinder([held, never, due, dueLong])).toBe(dueLong);
    expect(nextGrinder([held, never])).toBe(never);
    expect(nextGrinder([held])).toBeNull();
  });
});
