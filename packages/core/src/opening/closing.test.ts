import { describe, expect, it } from 'vitest';
import { standingFacts, type Entry, type StepBody } from '../facts/index.ts';
import { factMaker, stepMaker } from '../facts/testFacts.ts';
import { closedBefore, closedNow, faultsOf, jobsOf, morningOf, openingFromMs, openingState } from './index.ts';
import { glasshouse } from './testMorning.ts';

const START = '2031-05-04T18:00:00Z';
const step = stepMaker(START);
const fact = factMaker(START);
const at = (minutes: number): number => Date.parse(START) + minutes * 60_000;
const iso = (minutes: number): string => new Date(at(minutes)).toISOString();

const planned = (minutes: number, run: 'closing' | 'opening' = 'closing'): Entry =>
  step(
    {
      step: 'planned',
      run,
      opensAt: iso(minutes + 45),
      from: iso(minutes),
      people: [{ personId: 'tobin', from: iso(minutes) }],
      detergent: false,
    },
    minutes,
  );
const flushed = (groupId: string, detergent: boolean, minutes: number, rinsedClear = true): Entry =>
  step({ step: 'backFlushed', groupId, detergent, rinsedClear, screenDown: false, gasketGood: null }, minutes);
const left = (job: 'brushChute' | 'backFlush' | 'upkeep', stationId: string | null, minutes: number): Entry =>
  step({ step: 'skipped', job, stationId, why: 'No time' }, minutes);
const signed = (minutes: number): Entry => step({ step: 'signedOff', notRight: [] }, minutes);
const tomorrow: StepBody = { step: 'tomorrow', opensAt: iso(800), opensById: 'noor', bags: [], thawed: ['one'] };

describe('a closing', () => {
  const jobs = jobsOf({ ...glasshouse, upkeepDue: true }, 'closing');
  const stateAfter = (...entries: Entry[]) => openingState(jobs, standingFacts(entries), at(0));
  const standing = (key: string, ...entries: Entry[]) =>
    stateAfter(...entries).find(({ job }) => job.key === key)?.standing;

  it('empties and brushes each grinder, flushes each group, and ends each machine', () => {
    const count = (kind: string): number => jobs.filter((job) => job.kind === kind).length;
    expect(['emptyHopper', 'brushChute', 'backFlush', 'wand', 'trays', 'switchOff'].map(count)).toEqual([
      4, 4, 5, 2, 2, 2,
    ]);
    expect(['soak', 'upkeep', 'tomorrow', 'signOff', 'dial'].map(count)).toEqual([1, 1, 1, 1, 0]);
    expect(jobsOf(glasshouse, 'closing').some(({ kind }) => kind === 'upkeep')).toBe(false);
  });

  it('leaves the power on until its groups are flushed and its wand is clean, and the trays until the groups are', () => {
    const wand = step({ step: 'wandCleaned', machineId: 'moss' }, 5);
    expect(standing('switchOff:moss', wand, flushed('4', true, 6))).toBe('waiting');
    expect(standing('trays:moss', wand, flushed('4', true, 6))).toBe('waiting');
    expect(standing('switchOff:moss', wand, flushed('4', true, 6), flushed('5', false, 7))).toBe('ready');
    expect(standing('trays:moss', flushed('4', true, 6), flushed('5', false, 7))).toBe('ready');
  });

  it('sets the next day only once the beans are known', () => {
    const emptied = ['house', 'guest', 'decaf', 'brew'].map((grinderId, i) =>
      step({ step: 'hopperEmptied', grinderId, tubG: i === 0 ? 400 : null }, 3 + i),
    );
    expect(standing('tomorrow:bar', ...emptied.slice(1))).toBe('waiting');
    expect(standing('tomorrow:bar', ...emptied)).toBe('ready');
  });

  it('names a worn gasket, and goes on', () => {
    const worn = step(
      { step: 'backFlushed', groupId: '1', detergent: true, rinsedClear: true, screenDown: true, gasketGood: false },
      4,
    );
    expect(standing('backFlush:1', worn)).toBe('done');
    expect(faultsOf(stateAfter(worn))).toContainEqual({ kind: 'notRight', key: 'backFlush:1', what: 'gasketWorn' });
  });

  it('asks no grinder to hold, and is not in hand any more by the next morning', () => {
    const facts = standingFacts([planned(0)]);
    expect(openingFromMs(facts, at(10))).toBe(at(0));
    expect(openingFromMs(facts, at(10), 'house')).toBeNull();
    expect(morningOf(facts, at(45 + 4 * 60))?.run).toBe('closing');
    expect(morningOf(facts, at(45 + 6 * 60))).toBeNull();
  });
});

describe('what a closing leaves to the next opening', () => {
  const evening = [
    planned(0),
    flushed('1', true, 3),
    flushed('2', false, 4),
    left('brushChute', 'decaf', 5),
    left('backFlush', '3', 6),
    left('upkeep', null, 7),
    step(tomorrow, 8),
  ];

  it('is what was flushed with detergent, what was left out, and what tomorrow begins with', () => {
    const closed = closedBefore(standingFacts([...evening, signed(9)]), at(600));
    expect(closed).toMatchObject({
      signedAtMs: at(9),
      detergentGroupIds: ['1'],
      left: [
        { job: 'brushChute', stationId: 'decaf', why: 'No time' },
        { job: 'backFlush', stationId: '3', why: 'No time' },
      ],
      tomorrow: { opensById: 'noor', thawed: ['one'] },
    });
  });

  it('forgets what was done after all', () => {
    const closed = closedBefore(standingFacts([...evening, flushed('3', false, 12)]), at(600));
    expect(closed?.left.map(({ job }) => job)).toEqual(['brushChute']);
    expect(closed?.signedAtMs).toBeNull();
  });

  it('is over once an opening has begun, but not for that opening itself', () => {
    const facts = standingFacts([...evening, signed(9), planned(700, 'opening')]);
    expect(closedBefore(facts, at(710))).toBeNull();
    expect(closedBefore(facts, at(700))?.left).toHaveLength(2);
  });

  it('comes first in the opening, before what needs it, where its station still stands', () => {
    const jobs = jobsOf({
      ...glasshouse,
      left: [
        { job: 'backFlush', stationId: '3' },
        { job: 'brushChute', stationId: 'decaf' },
        { job: 'trays', stationId: 'sold' },
      ],
    });
    expect(jobs.slice(0, 2).map(({ key }) => key)).toEqual(['backFlush:3', 'brushChute:decaf']);
    const needs = (key: string) => jobs.find((job) => job.key === key)?.needs;
    expect(needs('rinse:3')).toEqual(['hot:fern', 'backFlush:3']);
    expect(needs('rinse:2')).toEqual(['hot:fern']);
    expect(needs('backFlush:3')).toEqual(['hot:fern']);
    expect(needs('firstDose:decaf')).toEqual(['hopper:decaf', 'brushChute:decaf']);
    expect(needs('signOff:bar')).toContain('backFlush:3');
    expect(jobs.some(({ stationId }) => stationId === 'sold')).toBe(false);
  });

  it('leaves the bar closed until somebody pulls, locks or begins', () => {
    const shut = [...evening, signed(9)];
    expect(closedNow(standingFacts(evening), at(10))).toBeNull();
    expect(closedNow(standingFacts(shut), at(10))?.signedAtMs).toBe(at(9));
    expect(closedNow(standingFacts([...shut, fact('shot', {}, 30)]), at(40))).toBeNull();
    expect(closedNow(standingFacts([...shut, planned(700, 'opening')]), at(710))).toBeNull();
  });
});
