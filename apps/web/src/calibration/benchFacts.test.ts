import { findFirstDropS } from '@tempera/core/capture';
import { describe, expect, it } from 'vitest';
import type { LivePull } from '../capture/index.ts';
import { enteredShot, handShot, lockFact, moveFacts, shotFact, shotOfPull } from './benchFacts.ts';
import type { BenchView } from './useBench.ts';

const station = { grinder: { id: 'grinder', recipe: { id: 'recipe', doseG: 18 }, others: [] } } as unknown as BenchView;

/** Six dry seconds, then 1.5 g/s until the stop, then a drip of 1.5 g over two seconds. */
function massAt(timeS: number, stopS: number): number {
  const poured = Math.max(0, Math.min(timeS, stopS) - 6) * 1.5;
  return poured === 0 ? 0 : poured + Math.max(0, Math.min(timeS - stopS, 2)) * 0.75;
}

function pullAt(elapsedS: number, stopS: number | null): LivePull {
  const massG = Array.from({ length: Math.round(elapsedS * 10) + 1 }, (_, i) => massAt(i / 10, stopS ?? Infinity));
  return {
    draft: {
      id: 'pull',
      startedAtMs: Date.parse('2031-05-04T06:30:00Z'),
      stoppedAtS: stopS,
      doseG: 18.1,
      groupId: 'group',
      setting: 30,
      byScale: true,
    },
    elapsedS: stopS ?? elapsedS,
    trace: { hz: 10, massG },
    settled: stopS !== null && elapsedS >= stopS + 3,
    lost: false,
    volumeCount: null,
    cupG: null,
  };
}

describe('the shot of a pull', () => {
  it('counts the drip before it has fallen, and what the scale says once it has', () => {
    // At 28 s there are 33 g in the cup; a second of 1.5 g/s is still to come.
    expect(shotOfPull(station, pullAt(28, 28))).toMatchObject({ timeS: 28, yieldG: 34.5, doseG: 18.1, setting: 30 });
    expect(shotOfPull(station, pullAt(31, 28))).toMatchObject({ timeS: 28, yieldG: 34.5 });
  });

  it('does not let the yield fall while the flow dies down', () => {
    const yields = [28, 28.5, 29, 30, 31].map((elapsedS) => shotOfPull(station, pullAt(elapsedS, 28)).yieldG);
    expect(yields).toEqual([34.5, 34.5, 34.5, 34.5, 34.5]);
  });

  it('finds the first drop and never puts it after the end', () => {
    const pull = pullAt(31, 28);
    expect(shotOfPull(station, pull).firstDropS).toBeCloseTo(findFirstDropS(pull.trace)!, 1);
    const short = pullAt(4, 1.5);
    expect(shotOfPull(station, short).firstDropS).toBeNull();
  });

  it('stays inside what the contract takes when it is stopped at once', () => {
    expect(shotOfPull(station, pullAt(0.2, 0.1))).toMatchObject({ timeS: 1, yieldG: 1, firstDropS: null });
  });

  it('is dated at the start of the pump with the id of the pull, so that writing it twice is writing it once', () => {
    const pull = pullAt(31, 28);
    const written = shotFact('grinder', pull, shotOfPull(station, pull));
    expect(written).toMatchObject({ id: 'pull', at: '2031-05-04T06:30:00.000Z', groupId: 'group' });
    expect(shotFact('grinder', pull, shotOfPull(station, pull))).toEqual(written);
  });

  it('takes typed numbers as they are', () => {
    const typed = { yieldG: 35.2, timeS: 26.5, firstDropS: null };
    const shot = handShot(station, pullAt(0, null), { ...typed, way: 'scale' });
    expect(shot).toMatchObject({ ...typed, measuredBy: 'hand', trace: null, flaw: null });
    expect(shot).not.toHaveProperty('measured');
    expect(shot).not.toHaveProperty('way');
  });

  it('says how each number is known, where no scale said it', () => {
    const pull = pullAt(0, null);
    const levelled = { ...pull, draft: { ...pull.draft, doseWay: 'levelled' as const } };
    const numbers = { yieldG: 35, timeS: 26, firstDropS: 6, way: 'glass' as const, glassMl: 46 };
    expect(handShot(station, levelled, numbers)).toMatchObject({
      glassMl: 46,
      measured: { dose: 'levelled', yield: 'glass' },
    });
    expect(shotOfPull(station, { ...levelled, elapsedS: 31 })).toMatchObject({ measured: { dose: 'levelled' } });
  });

  it('is entered without a pull, at the dose that was typed', () => {
    const from = { setting: 28, doseG: 18, doseWay: 'timed' as const, check: false };
    const body = enteredShot(station, from, { yieldG: 36, timeS: 27, firstDropS: null, way: 'eye', doseG: 17.6 });
    expect(body).toMatchObject({ setting: 28, doseG: 17.6, measured: { dose: 'timed', yield: 'eye' } });
  });
});

describe('what hands did', () => {
  it('is a move and a purge, or one of them, or nothing', () => {
    const kinds = (from: number, to: number, purgeG: number) =>
      moveFacts(station, { from, to, advisedTo: 28, purgeG }).map(({ kind }) => kind);
    expect(kinds(30, 28, 12)).toEqual(['collarMove', 'purge']);
    expect(kinds(30, 28, 0)).toEqual(['collarMove']);
    expect(kinds(30, 30, 12)).toEqual(['purge']);
    expect(kinds(30, 30, 0)).toEqual([]);
  });

  it('locks with the sound shots at this very setting as evidence', () => {
    const shot = (id: string, setting: number, flaw: string | null) => ({ id, body: { setting, flaw } });
    const state = {
      shots: [shot('a', 30, null), shot('b', 28, null), shot('c', 28, 'channel'), shot('d', 28, null)],
      grindTimeS: () => 9.2,
    };
    const view = { ...station, group: { id: 'group' }, state, house: { dosing: 'timed' } } as unknown as BenchView;
    const predicted = { timeS: 27.4, lowS: 25, highS: 30, inWindow: 0.93 };
    const lock = lockFact(view, { setting: 28, predicted, nextCheckMin: 45 } as never);
    expect(lock.body).toMatchObject({
      setting: 28,
      shotIds: ['b', 'd'],
      doseTimeS: 9.2,
      chance: 0.93,
      nextCheckMin: 45,
    });
    const single = { recipe: { id: 'single', doseG: 9 } };
    const both = { ...view, grinder: { ...station.grinder, others: [single] } } as unknown as BenchView;
    expect(lockFact(both, { setting: 28, predicted, nextCheckMin: 45 } as never).body).toMatchObject({
      otherDoses: [{ recipeVersionId: 'single', doseTimeS: 9.2 }],
    });
    const weighed = { ...view, house: { dosing: 'weighed' } } as unknown as BenchView;
    const held = lockFact(weighed, { setting: 28, predicted, nextCheckMin: 45 } as never);
    expect(held.body).toMatchObject({ doseTimeS: null });
  });
});
