import { describe, expect, it } from 'vitest';
import { standingFacts, type Happening } from '../facts/index.ts';
import { factMaker, stepMaker } from '../facts/testFacts.ts';
import { chamberFilledMs } from './chamber.ts';
import { lastHeard } from './dueInService.ts';

const START_MS = Date.parse('2031-05-04T06:00:00Z');

/** Minutes after the start since which coffee waits; null: none does. */
function waitsSince(...told: [Happening | 'purge' | 'primed', number][]): number | null {
  const [make, step] = [factMaker(), stepMaker()];
  const facts = standingFacts(
    told.map(([what, minute]) =>
      what === 'purge' || what === 'primed'
        ? make('purge', what === 'primed' ? { into: 'chamber' } : {}, minute)
        : step({ step: 'happened', what, grinderId: 'grinder' }, minute),
    ),
  );
  const ms = chamberFilledMs(facts, 'grinder');
  return ms === null ? null : (ms - START_MS) / 60_000;
}

describe('ground coffee that waits in a chamber', () => {
  it('is as old as the oldest that was not used up, cleaned out or purged', () => {
    expect(waitsSince()).toBeNull();
    expect(waitsSince(['chamberFilled', 10])).toBe(10);
    // Fresh on top of old: the old is still at the bottom.
    expect(waitsSince(['chamberFilled', 10], ['chamberFilled', 20])).toBe(10);
    expect(waitsSince(['chamberFilled', 10], ['chamberEmptied', 15], ['chamberFilled', 20])).toBe(20);
    expect(waitsSince(['chamberFilled', 10], ['cleaned', 15])).toBeNull();
    expect(waitsSince(['chamberFilled', 10], ['purge', 15])).toBeNull();
    expect(waitsSince(['chamberFilled', 10], ['primed', 15])).toBe(10);
  });

  it('says nothing of how the grinder stands: no look falls due for it', () => {
    const [make, step] = [factMaker(), stepMaker()];
    const facts = standingFacts([
      make('lock', {}, 1),
      step({ step: 'happened', what: 'chamberFilled', grinderId: 'grinder' }, 30),
    ]);
    expect(lastHeard(facts, 'grinder')).toEqual({ atMs: START_MS + 60_000, happened: false });
  });
});
