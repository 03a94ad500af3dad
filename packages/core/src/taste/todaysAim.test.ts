import { describe, expect, it } from 'vitest';
import { standingFacts } from '../facts/index.ts';
import { factMaker, stepMaker } from '../facts/testFacts.ts';
import { aimAfter, aimChangesOf, daysOfAim, windowShiftS } from './todaysAim.ts';

const day = Date.parse('2031-05-04T04:00:00Z');
const [step, fact] = [stepMaker(), factMaker()];
const settled = (
  lever: 'yield' | 'dose' | 'temperature' | 'grind' | 'window',
  by: number,
  minutes?: number,
  grinderId = 'grinder',
) => step({ step: 'tasteSettled', grinderId, change: { lever, by } }, minutes);
const recipe = { doseG: 18, yieldG: 36, tempC: 93, timeMinS: 25, timeMaxS: 30 };

describe('today’s aim', () => {
  it('is the recipe with what taste changed, one change after the other', () => {
    const facts = standingFacts([settled('yield', 0.06, 1), settled('dose', -0.4, 2), settled('temperature', -1, 3)]);
    const changes = aimChangesOf(facts, 'grinder', day);
    // By hand: 36 g times 1.06 is 38.16 g; 18 - 0.4 = 17.6 g; 93 - 1 = 92 degC.
    expect(aimAfter(recipe, changes)).toEqual({ ...recipe, doseG: 17.6, yieldG: 38.2, tempC: 92 });
    expect(aimAfter({ ...recipe, tempC: null }, changes).tempC).toBeNull();
  });

  it('knows of no other grinder’s, of no collar move, and of nothing before the day', () => {
    const facts = standingFacts([
      settled('yield', 0.06, 1, 'other'),
      settled('grind', 1, 2),
      settled('dose', 0.3, -600),
    ]);
    expect(aimChangesOf(facts, 'grinder', day)).toEqual([]);
    expect(aimAfter(recipe, [])).toEqual(recipe);
  });

  it('takes the window along with a turn of the collar that would leave it, and no further', () => {
    const window = { min: 25, max: 30 };
    // By hand: a quarter of 5 s is 1.25 s, so the cup has to stay between 26.25 s and 28.75 s.
    expect(windowShiftS(window, 26, 28.5)).toBe(0);
    // 30.0 s lies 1.25 s past 28.75 s: in halves, 1.5 s later.
    expect(windowShiftS(window, 27.5, 30)).toBe(1.5);
    // 24.6 s lies 1.65 s before 26.25 s: 2 s earlier.
    expect(windowShiftS(window, 27.1, 24.6)).toBe(-2);
    // A finer collar never makes the window earlier, however low the cup lies.
    expect(windowShiftS(window, 25, 25.5)).toBe(0);
    // Whoever tasted a cup of 33 s served it: it is taken for one at the edge.
    expect(windowShiftS(window, 33, 35)).toBe(3.5);
    const facts = standingFacts([settled('grind', 1, 1), settled('window', 1.5, 2)]);
    expect(aimAfter(recipe, aimChangesOf(facts, 'grinder', day))).toEqual({
      ...recipe,
      timeMinS: 26.5,
      timeMaxS: 31.5,
    });
  });

  it('ends with its day, unless it was kept; kept day after day it is counted, and another coffee ends it', () => {
    const nextDay = day + 86_400_000;
    const until = (days: number) => new Date(day + days * 86_400_000).toISOString();
    const kept = (days: number, minutes: number) =>
      step(
        {
          ...{ step: 'aimKept', grinderId: 'grinder', changes: [{ lever: 'yield', by: 0.06 }] },
          ...{ holdsUntil: until(days), days },
        },
        minutes,
      );
    const changed = settled('yield', 0.06, 1);
    const at = (facts: Parameters<typeof standingFacts>[0], fromMs: number) => [
      aimChangesOf(standingFacts(facts), 'grinder', fromMs).map(({ by }) => by),
      daysOfAim(standingFacts(facts), 'grinder', fromMs),
    ];
    expect(at([changed], nextDay)).toEqual([[], 0]);
    expect(at([changed, kept(2, 2)], day)).toEqual([[0.06], 1]);
    expect(at([changed, kept(2, 2)], nextDay)).toEqual([[0.06], 2]);
    expect(at([changed, kept(2, 2), settled('dose', 0.3, 1_500)], nextDay)).toEqual([[0.06, 0.3], 2]);
    expect(at([changed, kept(2, 2)], nextDay + 86_400_000)).toEqual([[], 0]);
    expect(at([changed, kept(2, 2), kept(3, 1_500)], nextDay + 86_400_000)).toEqual([[0.06], 3]);
    const other = fact('newBag', { roastedOn: null, otherCoffee: true }, 1_400);
    expect(at([changed, kept(2, 2), other], nextDay)).toEqual([[], 0]);
  });

  it('ends where another coffee goes in, and goes on with another bag of the same', () => {
    const changed = settled('yield', 0.06, 1);
    const bag = (otherCoffee: boolean) =>
      fact('newBag', { roastedOn: null, ...(otherCoffee ? { otherCoffee } : {}) }, 5);
    expect(aimChangesOf(standingFacts([changed, bag(false)]), 'grinder', day)).toHaveLength(1);
    expect(aimChangesOf(standingFacts([changed, bag(true)]), 'grinder', day)).toEqual([]);
  });
});
