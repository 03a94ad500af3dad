import { describe, expect, it } from 'vitest';
import { ToldFacts, type FactPlace } from '../src/kernel/toldFacts.ts';

const NOW_MS = Date.UTC(2026, 10, 28, 9);
const place = (seq: number, ageS: number): FactPlace => ({
  siteId: 'glasshouse',
  id: `fact-${seq}`,
  seq,
  receivedAt: new Date(NOW_MS - 1_000 * ageS),
});
const standAt = (seq: number, houseMs: number | null = null) => ({ siteId: 'glasshouse', seq, newsMs: null, houseMs });
const ids = (places: FactPlace[]): string[] => places.map(({ id }) => id);

describe('facts that streams were told of', () => {
  it('leave those whose notices were lost, each once', () => {
    const told = new ToldFacts();
    told.begin(standAt(10));
    told.tell('glasshouse', 'fact-11');
    expect(told.behind([standAt(13)])).toEqual([{ siteId: 'glasshouse', afterSeq: 10 }]);
    expect(ids(told.missedAmong([place(11, 5), place(12, 4), place(13, 3)], NOW_MS))).toEqual(['fact-12', 'fact-13']);
    expect(ids(told.missedAmong([place(11, 5), place(12, 4), place(13, 3)], NOW_MS))).toEqual([]);
  });

  it('find one that was committed after a higher place', () => {
    const told = new ToldFacts();
    told.begin(standAt(10));
    expect(ids(told.missedAmong([place(12, 4)], NOW_MS))).toEqual(['fact-12']);
    expect(ids(told.missedAmong([place(11, 4), place(12, 4)], NOW_MS))).toEqual(['fact-11']);
  });

  it('are not asked for again once no lower one can come', () => {
    const told = new ToldFacts();
    told.begin(standAt(10));
    told.missedAmong([place(11, 300), place(12, 2)], NOW_MS);
    expect(told.behind([standAt(12)])).toEqual([{ siteId: 'glasshouse', afterSeq: 11 }]);
    expect(told.behind([standAt(11)])).toEqual([]);
  });

  it('are of another database where the last place is lower, and a changed house is told once', () => {
    const told = new ToldFacts();
    told.begin(standAt(10, 5));
    expect(told.changed([standAt(10, 5)])).toEqual([]);
    expect(told.changed([standAt(10, 6)])).toEqual(['glasshouse']);
    expect(told.changed([standAt(10, 6)])).toEqual([]);
    expect(told.changed([standAt(8, 6)])).toEqual(['glasshouse']);
  });

  it('are forgotten with the last stream of their café', () => {
    const told = new ToldFacts();
    told.begin(standAt(10));
    told.keepOnly([]);
    expect(told.behind([standAt(13)])).toEqual([]);
  });
});
