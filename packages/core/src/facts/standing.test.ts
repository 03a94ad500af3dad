import { describe, expect, it } from 'vitest';
import { houseTimeMs } from './clock.ts';
import { factsAfter, factsSince, lastOfKind, ofGrinder, ofKind, standingFacts, stepsOf } from './standing.ts';
import { factMaker, stepMaker } from './testFacts.ts';

describe('facts as they now stand', () => {
  it('folds corrections into what they correct, the latest winning, in whatever order they arrive', () => {
    const make = factMaker();
    const shot = make('shot', { timeS: 22 });
    const first = make('correction', { factId: shot.id, shot: { timeS: 27, flaw: 'channel' } });
    const second = make('correction', { factId: shot.id, shot: { flaw: null } });
    expect(standingFacts([second, shot, first])).toEqual([
      expect.objectContaining({ id: shot.id, body: expect.objectContaining({ timeS: 27, flaw: null }) }),
    ]);
  });

  it('leaves out what was withdrawn, of any kind, and takes it back again', () => {
    const make = factMaker();
    const lock = make('lock');
    const gone = make('correction', { factId: lock.id, withdrawn: true });
    expect(standingFacts([lock, gone])).toEqual([]);
    const back = make('correction', { factId: lock.id, withdrawn: false });
    expect(standingFacts([lock, gone, back])).toHaveLength(1);
  });

  it('lets a correction reach its target though its clock says that it came first', () => {
    const make = factMaker();
    const shot = make('shot', {}, 60);
    expect(standingFacts([shot, make('correction', { factId: shot.id, withdrawn: true }, 1)])).toEqual([]);
  });

  it('ignores a correction that points nowhere, and counts an entry that came twice once', () => {
    const make = factMaker();
    const shot = make('shot');
    expect(standingFacts([shot, make('correction', { factId: 'nobody', withdrawn: true }), shot])).toEqual([shot]);
  });

  it('leaves out steps that were taken back, and the takings back', () => {
    const step = stepMaker();
    const [on, hot] = [step({ step: 'switchedOn', machineId: 'm', readings: [], takesBack: null }), step(hotStep)];
    const back = step({ step: 'takenBack', machineId: null, readings: [], takesBack: hot.id });
    expect(standingFacts([back, hot, on])).toEqual([on]);
  });
});

const hotStep = { step: 'hot' as const, machineId: 'm', readings: [], takesBack: null };

describe('parts of what stands', () => {
  const make = factMaker();
  const facts = standingFacts([
    make('shot', { timeS: 20 }),
    make('lock'),
    { ...make('shot', { timeS: 30 }), grinderId: 'other' },
    make('shot', { timeS: 26 }),
    stepMaker()(hotStep),
  ]);

  it('are the facts of a grinder, of a kind, since a moment, and after one of them', () => {
    expect(ofGrinder(facts, 'other')).toHaveLength(1);
    expect(ofKind(facts, 'shot').map(({ body }) => body.timeS)).toEqual([20, 30, 26]);
    expect(lastOfKind(facts, 'purge')).toBeNull();
    const lock = lastOfKind(facts, 'lock');
    expect(factsAfter(ofGrinder(facts, 'grinder'), lock)).toHaveLength(1);
    expect(factsAfter(facts, null)).toHaveLength(5);
    expect(factsSince(facts, Date.parse(lock?.at ?? ''))).toHaveLength(3);
    expect(stepsOf(facts, 'hot')).toHaveLength(1);
    expect(stepsOf(facts, 'milk')).toEqual([]);
  });
});

describe('when it happened', () => {
  it.each([
    ['by a right clock', 1_000, 0, 5_000, 1_000],
    ['by a clock that is a quarter of an hour fast', 900_000 + 1_000, 900_000, 5_000, 1_000],
    ['by a slow clock', 1_000, -600, 5_000, 1_600],
    ['dated ahead, by a clock that nobody measured', 9_000, null, 5_000, 5_000],
    ['waiting to be sent', 9_000, null, null, 9_000],
  ])('%s', (_name, deviceMs, skewMs, arrivedMs, expected) => {
    expect(houseTimeMs(deviceMs, skewMs, arrivedMs)).toBe(expected);
  });
});
