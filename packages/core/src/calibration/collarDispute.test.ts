import { describe, expect, it } from 'vitest';
import { standingFacts, type AnyFact } from '../facts/index.ts';
import { factMaker } from '../facts/testFacts.ts';
import { collarDispute } from './collarDispute.ts';

const make = factMaker('2031-05-04T06:00:00Z');
const moved = (from: number, to: number, minute: number): AnyFact => make('collarMove', { from, to }, minute);
const NOW = Date.parse('2031-05-04T08:00:00Z');
const dispute = (...facts: AnyFact[]) => collarDispute(standingFacts(facts), NOW);

describe('two tablets that turned the same collar while apart', () => {
  it('leave two moves that do not fit', () => {
    expect(dispute(moved(30, 31, 2), moved(30, 28, 5))).toMatchObject({
      earlier: { body: { to: 31 } },
      later: { body: { from: 30, to: 28 } },
    });
    // Whichever arrived first: the order is that of the hands.
    expect(dispute(moved(30, 28, 5), moved(30, 31, 2))?.later.body.to).toBe(28);
  });

  it('agree where one went on from the other, or nobody else turned', () => {
    expect(dispute(moved(30, 31, 2), moved(31, 28, 5))).toBeNull();
    expect(dispute(moved(30, 28, 5))).toBeNull();
    expect(dispute()).toBeNull();
  });

  it('are asked no more once somebody said what the dial shows', () => {
    expect(dispute(moved(30, 31, 2), moved(30, 28, 5), moved(28, 29, 9))).toBeNull();
    expect(dispute(moved(30, 31, 2), moved(30, 28, 5), moved(28, 28, 9))).toBeNull();
  });

  it('are not taken for one where the mark in between was seen', () => {
    expect(dispute(moved(30, 31, 2), make('shot', { setting: 30 }, 3), moved(30, 28, 5))).toBeNull();
    expect(dispute(moved(30, 31, 2), make('shot', { setting: 31 }, 3), moved(30, 28, 5))).not.toBeNull();
  });

  it('are yesterday’s by the next day', () => {
    expect(collarDispute(standingFacts([moved(30, 31, 2), moved(30, 28, 5)]), NOW + 86_400_000)).toBeNull();
  });
});
