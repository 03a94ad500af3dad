import { describe, expect, it } from 'vitest';
import { factMaker } from '../facts/testFacts.ts';
import {
  standingFacts,
  type AnyFact,
  type Entry,
  type FactBodies,
  type FactKind,
  type StepBody,
  type StepFact,
} from '../facts/index.ts';
import { dangersAt } from './cautions.ts';
import { jobHistory, runSpans } from './jobHistory.ts';
import { jobKey, jobsOf } from './jobs.ts';
import { nextThings } from './nextThings.ts';
import { morningOf, openingFromMs, openingState, runBefore, type JobState } from './openingState.ts';
import { planChange } from './planChanges.ts';
import { faultsOf, grinderSigned } from './signOff.ts';
import { glasshouse } from './testMorning.ts';

const FROM = Date.parse('2031-05-04T05:30:00Z');
let made = 0;
const step = (body: StepBody, minutes: number, personId = 'ines'): StepFact => ({
  id: `step ${(made += 1)}`,
  kind: 'step',
  at: new Date(FROM + minutes * 60_000).toISOString(),
  grinderId: null,
  groupId: null,
  body,
  personId,
});
const maker = factMaker();
const fact = <K extends FactKind>(kind: K, grinderId: string, minutes: number, body: Partial<FactBodies[K]> = {}) => ({
  ...maker(kind, body),
  grinderId,
  at: new Date(FROM + minutes * 60_000).toISOString(),
  personId: 'noor',
});
const machine = (kind: 'switchedOn' | 'hot', minutes: number) =>
  step({ step: kind, machineId: 'fern', readings: [], takesBack: null }, minutes);
const water = (waterRuns: boolean, filterInDate: boolean, minutes = 1) =>
  step({ step: 'water', machineId: 'fern', waterRuns, filterInDate }, minutes);
const rinsed = (minutes: number) =>
  step({ step: 'rinsed', groupId: '1', rinseS: 5, screenCleaned: true, detergent: false }, minutes);
const scaleShows = (shownG: number) => step({ step: 'scale', knownG: 200, shownG }, 4);
const cleared = (minutes: number) => step({ step: 'firstDose', grinderId: 'house' }, minutes);
const jobs = jobsOf(glasshouse);
const stateAfter = (...entries: Entry[]): JobState[] => openingState(jobs, standingFacts(entries), FROM);
const stateOf = (key: string, steps: StepFact[], facts: AnyFact[] = []): JobState => {
  const found = stateAfter(...facts, ...steps).find(({ job }) => job.key === key);
  if (!found) throw new Error(`no job ${key}`);
  return found;
};

describe('the jobs of a bar', () => {
  it('are those of every station, and only the groups that no grinder is dialled in on are checked', () => {
    const count = (kind: string): number => jobs.filter((job) => job.kind === kind).length;
    expect(['water', 'hot', 'hopper', 'rinse', 'dial', 'taste', 'milk', 'button'].map(count)).toEqual([
      2, 2, 4, 5, 4, 4, 1, 0,
    ]);
    expect(
      jobs.filter(({ kind }) => kind === 'groupCheck').map(({ stationId, withId }) => [stationId, withId]),
    ).toEqual([['3', 'house']]);
  });

  it('ask for no scale where there is none, and prove a grind time only where the house wants three doses more', () => {
    const kinds = (bar: object): string[] => jobsOf({ ...glasshouse, ...bar }).map(({ kind }) => kind);
    expect(kinds({})).not.toContain('doseTime');
    expect(kinds({ provesDoses: true }).filter((kind) => kind === 'doseTime')).toHaveLength(4);
    expect(jobsOf({ ...glasshouse, provesDoses: true }).find(({ kind }) => kind === 'doseTime')?.needs).toEqual([
      'dial:house',
    ]);
    const without = jobsOf({ ...glasshouse, scale: false });
    expect(without.some(({ kind, uses }) => kind === 'scale' || uses.includes('scale'))).toBe(false);
    const keys = new Set(without.map(({ key }) => key));
    expect(without.flatMap(({ needs }) => needs).filter((need) => !keys.has(need))).toEqual([]);
  });

  it('measure the buttons where machines stop the shots', () => {
    const byVolume = jobsOf({ ...glasshouse, byVolume: true }).filter(({ kind }) => kind === 'button');
    expect(byVolume.map(({ stationId }) => stationId)).toEqual(['1', '2', '3', '4', '5']);
    expect(byVolume.find(({ stationId }) => stationId === '3')?.needs).toEqual(['groupCheck:3']);
  });

  it('end with the signature, which waits for all', () => {
    const last = jobs.at(-1);
    expect(last?.key).toBe('signOff:bar');
    expect(last?.needs).toHaveLength(jobs.length - 1);
    expect(last?.who).toBe('head');
  });
});

describe('gates', () => {
  const needs: [string, StepFact[], JobState['standing']][] = [
    ['switchOn:fern', [], 'waiting'],
    ['switchOn:fern', [water(true, true)], 'ready'],
    ['switchOn:fern', [water(false, true)], 'waiting'],
    ['switchOn:fern', [water(true, false)], 'ready'],
    ['hot:fern', [water(true, true)], 'waiting'],
    ['hot:fern', [water(true, true), machine('switchedOn', 2)], 'ready'],
    ['rinse:1', [machine('switchedOn', 2)], 'waiting'],
    ['rinse:1', [machine('switchedOn', 2), machine('hot', 25)], 'ready'],
    ['rinse:1', [machine('hot', 25), rinsed(26)], 'done'],
    ['firstDose:house', [], 'waiting'],
    ['firstDose:house', [step({ step: 'hopper', grinderId: 'house' }, 3)], 'ready'],
    ['dial:house', [rinsed(26), cleared(27)], 'waiting'],
    ['dial:house', [scaleShows(200.2), cleared(27)], 'waiting'],
    ['dial:house', [scaleShows(200.2), rinsed(26), cleared(27)], 'ready'],
    ['dial:house', [scaleShows(200.3), rinsed(26), cleared(27)], 'waiting'],
    ['signOff:bar', [], 'waiting'],
  ];
  it.each(needs)('%s after %# steps', (key, steps, standing) => {
    expect(stateOf(key, steps).standing).toBe(standing);
  });

  it('open for what was left out with a reason', () => {
    const skipped = step({ step: 'skipped', job: 'water', stationId: 'fern', why: 'No time' }, 1);
    expect(stateOf('water:fern', [skipped])).toMatchObject({ standing: 'skipped', skippedWhy: 'No time' });
    expect(stateOf('switchOn:fern', [skipped]).standing).toBe('ready');
  });
});

describe('what is not right', () => {
  it.each([
    ['no water', 'water:fern', water(false, true), 'noWater', 'ready'],
    ['an old filter', 'water:fern', water(true, false), 'filterOld', 'done'],
    ['a scale that is off', 'scale:bar', step({ step: 'scale', knownG: 200, shownG: 203 }, 1), 'scaleOff', 'ready'],
  ] as const)('%s', (_, key, bad, notRight, standing) => {
    expect(stateOf(key, [bad])).toMatchObject({ notRight, standing });
  });

  const checked = (finding: 'group' | 'none', minutes: number) =>
    step(
      {
        step: 'groupChecked',
        groupId: '3',
        offS: 3,
        sdS: 0.6,
        finding,
        foundId: finding === 'group' ? '3' : null,
        chance: 0.95,
      },
      minutes,
    );
  it('stands until a new check finds nothing', () => {
    expect(stateOf('groupCheck:3', [checked('group', 40)]).notRight).toBe('groupOff');
    expect(stateOf('groupCheck:3', [checked('group', 40), checked('none', 50)])).toMatchObject({
      notRight: null,
      standing: 'done',
    });
  });
});

describe('who does it', () => {
  const begun = (personId: string, minutes: number) =>
    step({ step: 'begun', job: 'hopper', stationId: 'house' }, minutes, personId);
  it('is whoever took it in hand last', () => {
    expect(stateOf('hopper:house', [begun('ines', 1), begun('noor', 2)])).toMatchObject({
      standing: 'underWay',
      personId: 'noor',
    });
  });

  it('a step that is taken back is to be done again', () => {
    const done = step({ step: 'hopper', grinderId: 'house' }, 3);
    const back = step({ step: 'takenBack', machineId: null, readings: [], takesBack: done.id }, 4);
    expect(stateOf('hopper:house', [done]).factId).toBe(done.id);
    expect(stateOf('hopper:house', [done, back]).standing).toBe('ready');
  });

  it('what happened before the opening began does not count', () => {
    expect(stateOf('hopper:house', [step({ step: 'hopper', grinderId: 'house' }, -5)]).standing).toBe('ready');
  });
});

describe('a grinder is dialled in', () => {
  const lock = fact('lock', 'house', 40);
  it('by its lock, until it is touched', () => {
    expect(stateOf('dial:house', [], [lock])).toMatchObject({ standing: 'done', personId: 'noor' });
    expect(stateOf('dial:house', [], [lock, fact('collarMove', 'house', 42)]).standing).toBe('waiting');
    expect(stateOf('dial:house', [], [lock, fact('newBag', 'house', 42)]).standing).toBe('waiting');
  });

  it('and a shot that checks a group does not touch it', () => {
    expect(stateOf('dial:house', [], [lock, fact('shot', 'house', 42, { check: true })]).standing).toBe('done');
    expect(stateOf('dial:house', [], [lock, fact('shot', 'house', 42)]).standing).toBe('waiting');
  });
});

describe('the morning in hand', () => {
  const planned = (opensAt: string, minutes = 0, from = new Date(FROM).toISOString()) =>
    step(
      {
        step: 'planned' as const,
        opensAt,
        from,
        people: [{ personId: 'ines', from: '2031-05-04T05:30:00Z' }],
        detergent: true,
      },
      minutes,
    );
  it('is the newest that was planned', () => {
    const found = morningOf(standingFacts([planned('2031-05-04T07:00:00Z'), planned('2031-05-04T07:30:00Z', 5)]), FROM);
    expect(found).toMatchObject({ opensAtMs: Date.parse('2031-05-04T07:30:00Z'), fromMs: FROM, detergent: true });
  });

  it('is in hand until somebody has signed for it', () => {
    const signed = step({ step: 'signedOff', notRight: [] }, 60);
    const opening = planned('2031-05-04T07:00:00Z');
    expect(openingFromMs(standingFacts([opening]), FROM)).toBe(FROM);
    expect(openingFromMs(standingFacts([opening, signed]), FROM)).toBeNull();
    expect(openingFromMs(standingFacts([]), FROM)).toBeNull();
  });

  it('does not ask again for what was locked just before, unless it was then begun anew', () => {
    const lock = [fact('shot', 'house', -6), fact('lock', 'house', -5)];
    const dial = (...entries: Entry[]) =>
      openingState(jobs, standingFacts(entries), FROM).find(({ job }) => job.key === 'dial:house')?.standing;
    expect(dial(...lock, planned('2031-05-04T07:00:00Z'))).toBe('done');
    expect(dial(fact('lock', 'house', -40), planned('2031-05-04T07:00:00Z'))).not.toBe('done');
    const before = planned('2031-05-04T07:00:00Z', -20, new Date(FROM - 20 * 60_000).toISOString());
    expect(dial(before, ...lock, planned('2031-05-04T07:00:00Z'))).not.toBe('done');
    const closing = { ...before, body: { ...before.body, run: 'closing' as const } } as StepFact;
    const closed = [closing, step({ step: 'signedOff', notRight: [] }, -1)];
    expect(dial(...closed, ...lock, planned('2031-05-04T07:00:00Z'))).not.toBe('done');
  });

  it('begun anew can be taken back to the one before, but not past a signature or to a run of another kind', () => {
    const LATER = '2031-05-04T06:00:00.000Z';
    const opening = planned('2031-05-04T07:00:00Z');
    const anew = planned('2031-05-04T07:00:00Z', 30, LATER);
    const signed = step({ step: 'signedOff', notRight: [] }, 20);
    const nowMs = Date.parse(LATER);
    expect(runBefore(standingFacts([opening]), nowMs)).toBeNull();
    expect(runBefore(standingFacts([opening, anew]), nowMs)).toEqual({ fromMs: FROM, plannedIds: [anew.id] });
    expect(runBefore(standingFacts([opening, signed, anew]), nowMs)).toBeNull();
    const afternoon = { ...anew, body: { ...anew.body, run: 'afternoon' as const, grinderIds: ['house'] } };
    expect(runBefore(standingFacts([opening, afternoon]), nowMs)).toBeNull();
    const takenBack = step({ step: 'takenBack', machineId: null, readings: [], takesBack: anew.id }, 31);
    expect(morningOf(standingFacts([opening, anew, takenBack]), nowMs)?.fromMs).toBe(FROM);
  });

  it('of an afternoon is about its own grinders, and asks them to be dialled in and tasted', () => {
    const run = { ...planned('2031-05-04T15:00:00Z').body, run: 'afternoon' as const, grinderIds: ['house'] };
    const facts = standingFacts([step(run, 0)]);
    expect(openingFromMs(facts, FROM, 'house')).toBe(FROM);
    expect(openingFromMs(facts, FROM, 'guest')).toBeNull();
    expect(jobsOf(glasshouse, 'afternoon', ['house']).map(({ key, needs }) => [key, needs])).toEqual([
      ['dial:house', []],
      ['taste:house', ['dial:house']],
      ['signOff:bar', ['dial:house', 'taste:house']],
    ]);
    // Whoever went over it ends it; the opening is its head barista's.
    expect(jobsOf(glasshouse, 'afternoon', ['house']).at(-1)?.who).toBe('trained');
  });

  it('is over half a day after its hour', () => {
    const steps = standingFacts([planned('2031-05-04T07:00:00Z')]);
    expect(morningOf(steps, Date.parse('2031-05-04T18:59:00Z'))).not.toBeNull();
    expect(morningOf(steps, Date.parse('2031-05-04T19:01:00Z'))).toBeNull();
    expect(morningOf(standingFacts([]), FROM)).toBeNull();
  });
});

describe('the next thing', () => {
  const states = stateAfter(water(true, true));
  const planned = (key: string, startMin: number, personId: string) => ({
    key,
    startMin,
    endMin: startMin + 1,
    personId,
  });
  const plan = [
    planned('switchOn:fern', 0, 'ines'),
    planned('hopper:house', 0, 'noor'),
    planned('hopper:guest', 1, 'ines'),
    planned('scale:bar', 2, 'ines'),
    planned('hopper:decaf', 3, 'ines'),
  ];
  const keys = (steps: JobState[], who: string) => nextThings(steps, plan, who).map(({ state }) => state.job.key);

  it('is what the plan gives them, and the two after it', () => {
    expect(keys(states, 'ines')).toEqual(['switchOn:fern', 'hopper:guest', 'scale:bar']);
    expect(keys(states, 'noor')).toEqual(['hopper:house']);
  });

  it('is first what they have in hand', () => {
    const begun = step({ step: 'begun', job: 'scale', stationId: null }, 2);
    const after = stateAfter(water(true, true), begun);
    expect(keys(after, 'ines')[0]).toBe('scale:bar');
    expect(keys(after, 'noor')).not.toContain('scale:bar');
  });

  it('is something that is ready, whoever it was planned for, where all of theirs waits', () => {
    const waits = [planned('rinse:1', 0, 'ines'), planned('hopper:house', 0, 'noor')];
    const found = nextThings(states, waits, 'ines').map(({ state }) => state.job.key);
    expect(states.find(({ job }) => job.key === found[0])?.standing).toBe('ready');
    const nothing = nextThings(states, waits, 'ines', () => false).map(({ state }) => state.job.key);
    expect(nothing).toEqual(['rinse:1']);
  });

  it('of somebody who is not in the plan is what is ready', () => {
    expect(keys(states, 'pell')).toHaveLength(3);
  });
});

describe('cautions', () => {
  it.each([
    ['rinse', false, ['scald']],
    ['rinse', true, ['detergent', 'scald']],
    ['hopper', false, ['burrs']],
    ['hot', true, ['mains']],
    ['milk', false, ['steam', 'milk']],
    ['signOff', false, []],
  ] as const)('at %s', (kind, detergent, dangers) => {
    expect(dangersAt(kind, detergent)).toEqual(dangers);
  });
});

describe('what is told when the plan changes', () => {
  const seen = (endMin: number, states: JobState[], people = ['ines']) => ({
    endAtMs: FROM + endMin * 60_000,
    opensAtMs: FROM + 120 * 60_000,
    people,
    jobs: states,
  });
  const quiet = stateAfter();
  it.each([
    ['nothing for a minute of rounding', seen(60, quiet), seen(61, quiet), null],
    ['nothing for four minutes, while there is time', seen(60, quiet), seen(64, quiet), null],
    ['what takes longer', seen(60, quiet), seen(65, quiet), { byMin: 5, cause: { kind: 'longer' } }],
    ['two minutes that make it late', seen(119, quiet), seen(121, quiet), { byMin: 2, cause: { kind: 'longer' } }],
    ['what goes faster', seen(60, quiet), seen(55, quiet), { byMin: -5, cause: { kind: 'sooner' } }],
    ['other people', seen(60, quiet), seen(50, quiet, ['ines', 'noor']), { byMin: -10, cause: { kind: 'people' } }],
    [
      'what is not right',
      seen(60, quiet),
      seen(66, stateAfter(water(false, true))),
      { byMin: 6, cause: { kind: 'notRight', key: 'water:fern' } },
    ],
    [
      'what is to be done again',
      seen(60, stateAfter(rinsed(26))),
      seen(67, quiet),
      { byMin: 7, cause: { kind: 'again', key: 'rinse:1' } },
    ],
  ])('%s', (_, before, after, change) => {
    expect(planChange(before, after)).toEqual(change);
  });
});

describe('the page that is signed', () => {
  it('names what is wrong, then what is open, then what was left out', () => {
    const states = stateAfter(
      water(false, true),
      step({ step: 'skipped', job: 'milk', stationId: null, why: 'No milk today' }, 3),
    );
    const faults = faultsOf(states);
    expect(faults[0]).toEqual({ kind: 'notRight', key: 'water:fern', what: 'noWater' });
    expect(faults.at(-1)).toEqual({ kind: 'skipped', key: 'milk:bar', why: 'No milk today' });
    expect(faults.filter(({ kind }) => kind === 'open')).toHaveLength(jobs.length - 3);
  });

  it('counts the grams of doses, purges and what was thrown away, a dose and its shot once', () => {
    const facts = [
      fact('dose', 'house', 30, { doseG: 18 }),
      fact('shot', 'house', 31, { doseG: 18 }),
      fact('purge', 'house', 32, { purgeG: 10 }),
      fact('shot', 'house', 33, { doseG: 18 }),
      fact('lock', 'house', 35),
    ];
    const thrown = step(
      {
        step: 'doseTime',
        grinderId: 'house',
        way: 'timed',
        discardedG: 18,
        grindTimeS: 8.8,
        dosesG: [18, 18.2],
        holds: true,
      },
      20,
    );
    const page = grinderSigned('house', standingFacts([...facts, thrown]), FROM);
    expect(page.used.totalG).toBeCloseTo(18 + 10 + 18 + 18 + 36.2, 9);
    expect(page.used.byCause).toMatchObject({ poured: 36, purged: 10, thrownAway: 54.2 });
    expect(page).toMatchObject({ tookMin: 5, set: { setting: 30, changed: false } });
    expect(page.set?.doses).toMatchObject([{ doseTimeS: 9.3 }]);
    expect(page.shots).toHaveLength(2);
    expect(grinderSigned('guest', standingFacts(facts), FROM)).toMatchObject({ set: null, tookMin: null });
  });

  it('shows no shot from before the collar moved or its group was mended, and the time that was proven', () => {
    const on = (groupId: string, minutes: number) => ({ ...fact('shot', 'house', minutes), groupId });
    const found = grinderSigned(
      'house',
      standingFacts([
        on('1', 30),
        fact('collarMove', 'house', 31, { from: 31, to: 30 }),
        on('1', 32),
        on('3', 33),
        step({ step: 'mended', groupId: '3', what: 'screen' }, 34),
        on('3', 35),
        fact('lock', 'house', 36),
        step(
          {
            ...{ step: 'doseTime', grinderId: 'house', way: 'timed', discardedG: 0, holds: true },
            ...{ grindTimeS: 8.8, dosesG: [18, 18, 18] },
          },
          37,
        ),
      ]),
      FROM,
    );
    expect(found.shots.map(({ at }) => (Date.parse(at) - FROM) / 60_000)).toEqual([32, 35]);
    expect(found.set?.doses).toMatchObject([{ doseTimeS: 8.8 }]);
  });

  it('counts a grinder as changed once taste changed its aim, until it is locked again', () => {
    const sour = step({ step: 'tasteSettled', grinderId: 'house', change: { lever: 'yield', by: 0.06 } }, 37);
    const before = [fact('shot', 'house', 30), fact('lock', 'house', 36), sour];
    const dial = (...more: Entry[]) =>
      openingState(jobs, standingFacts([...before, ...more]), FROM).find(({ job }) => job.key === 'dial:house');
    expect(grinderSigned('house', standingFacts(before), FROM).set?.changed).toBe(true);
    expect(dial()?.standing).not.toBe('done');
    expect(dial(fact('shot', 'house', 38), fact('lock', 'house', 39))?.standing).toBe('done');
  });
});

describe('what mornings teach', () => {
  it('is how long it took from the hand to the deed, and from shot to shot', () => {
    const steps = [
      step({ step: 'begun', job: 'hopper', stationId: 'house' }, 1),
      step({ step: 'hopper', grinderId: 'house' }, 3.5),
      step({ step: 'hopper', grinderId: 'guest' }, 4),
    ];
    const minute = 60_000;
    const history = jobHistory(standingFacts(steps), new Map([['house', [0, 2 * minute, 5 * minute, 90 * minute]]]));
    expect(history.hopper).toEqual([2.5]);
    expect(history.shot).toEqual([2, 3]);
    expect(jobKey('hopper', 'house')).toBe('hopper:house');
  });

  it('counts rounds from a run’s first plan to its signature, not what is poured for guests', () => {
    const from = (days: number): string => new Date(FROM + days * 86_400_000).toISOString();
    const planned = (days: number, minutes: number): StepFact =>
      step(
        { step: 'planned', from: from(days), opensAt: from(days), people: [], detergent: false },
        days * 1_440 + minutes,
      );
    const signed = (minutes: number): StepFact => step({ step: 'signedOff', notRight: [] }, minutes);
    const steps = [
      planned(0, 2), // given up, never signed
      planned(1, 0),
      planned(1, 9),
      signed(1_440 + 40),
      signed(1_440 + 60),
    ];
    const at = (minutes: number): number => FROM + minutes * 60_000;
    expect(runSpans(standingFacts(steps))).toEqual([{ fromMs: at(1_440), toMs: at(1_480) }]);
  });
});
