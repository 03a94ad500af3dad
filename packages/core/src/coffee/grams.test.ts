import { describe, expect, it } from 'vitest';
import { standingFacts, type AnyFact } from '../facts/index.ts';
import { factMaker } from '../facts/testFacts.ts';
import { usesInTurn, usesOf, type UseCause } from './gramsUsed.ts';

const make = factMaker();
/** Two grinders through a morning: doses pulled, thrown away, topped by another grinder's, purges, and one that still waits. */
const facts: AnyFact[] = [
  make('dose', { doseG: 17 }, 0),
  { ...make('dose', { doseG: 16 }, 1), grinderId: 'guest' },
  make('dose', { doseG: 18 }, 2),
  make('shot', { doseG: 18 }, 3),
  make('purge', { purgeG: 8 }, 4),
  make('shot', { doseG: 18.2 }, 5),
  { ...make('shot', { doseG: 16 }, 6), grinderId: 'guest' },
  make('dose', { doseG: 18, firstPartG: 19.5 }, 7),
];
const grams: [UseCause, number][] = [
  ['thrownAway', 17],
  ['poured', 16],
  ['poured', 18],
  ['purged', 8],
  ['poured', 18.2],
  ['thrownAway', 1.5],
  ['poured', 18],
];

describe('where ground coffee went', () => {
  it('is told once for each lot, in order', () => {
    expect(usesOf(standingFacts(facts)).map(({ cause, grams: g }) => [cause, g])).toEqual(grams);
  });

  it('is the same wherever a long history is cut', () => {
    for (let cut = 0; cut <= facts.length; cut += 1) {
      const told = usesInTurn();
      const uses = [
        ...told.take(standingFacts(facts.slice(0, cut))),
        ...told.take(standingFacts(facts.slice(cut))),
        ...told.rest(),
      ];
      expect(uses).toEqual(usesOf(standingFacts(facts)));
    }
  });

  it('holds nothing back for a dose that was never pulled, once a day has gone by', () => {
    const told = usesInTurn();
    expect(told.take(standingFacts([make('dose', { doseG: 18 }, 0)]))).toEqual([]);
    const later = told.take(standingFacts([{ ...make('shot', {}, 2 * 1_440), grinderId: 'guest' }]));
    expect(later.map(({ cause }) => cause)).toEqual(['poured', 'poured']);
  });
});
