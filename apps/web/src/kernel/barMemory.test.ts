import type { Bar, Grinder } from '@tempera/contract/bar';
import { memoryContextOf } from '@tempera/contract/station';
import { emptyMemory, updateWithFacts, packMemory, posterior } from '@tempera/core/calibration';
import { standingFacts, type AnyFact } from '@tempera/core/facts';
import { describe, expect, it } from 'vitest';
import { memoryOf, memoryWith } from './barMemory.ts';

const at = (minutes: number): string => new Date(Date.parse('2031-05-04T06:00:00Z') + minutes * 60_000).toISOString();
const shot = (minutes: number, timeS: number, id = `shot ${String(minutes).padStart(4, '0')}`): AnyFact => ({
  id,
  kind: 'shot',
  at: at(minutes),
  personId: 'ines',
  grinderId: 'house',
  groupId: 'group',
  body: {
    recipeVersionId: 'recipe',
    setting: 30,
    doseG: 18,
    yieldG: 36,
    timeS,
    firstDropS: 6,
    flaw: null,
    measuredBy: 'scale',
    trace: null,
  },
});
const grinders = [
  {
    id: 'house',
    stepMarks: 1,
    finer: 'down',
    dialMin: 1,
    dialMax: 60,
    secondsPerMark: 2.5,
    retentionG: null,
    seedSetting: 30,
    others: [],
    recipe: { id: 'recipe', timeFrom: 'pump', doseG: 18, yieldG: 36, doseToleranceG: 0.3, timeMinS: 25, timeMaxS: 30 },
  },
] as unknown as Grinder[];
const yesterday = [shot(-900, 26), shot(-890, 27)];
const context = memoryContextOf({ grinders, recipesNamed: [] });
const handedOut = () =>
  ({
    grinders,
    recipesNamed: [],
    memory: { upTo: at(0), state: packMemory(updateWithFacts(emptyMemory, standingFacts(yesterday), context)) },
  }) as Pick<Bar, 'memory' | 'grinders' | 'recipesNamed'>;
const numbers = (memory: ReturnType<typeof memoryOf>): number[] => {
  const { belief } = posterior(memory, Date.parse(at(200)));
  return [...belief.mean, ...belief.covariance];
};
/** Everything heard from the beginning, as a device would that was handed nothing. */
const inOneGo = (facts: readonly AnyFact[]): number[] =>
  numbers(updateWithFacts(emptyMemory, standingFacts([...yesterday, ...facts]), context));

describe('the memory that a browser folds', () => {
  const today = [shot(1, 22), shot(4, 24), shot(8, 27), shot(12, 26.5)];

  it('is the same however its facts came: one by one, at once, late in between, corrected, or after a reload', () => {
    const bar = handedOut();
    const arrivals = [today.slice(0, 1), today.slice(0, 2), today];
    for (const known of arrivals) expect(numbers(memoryOf(bar, standingFacts(known)))).toEqual(inOneGo(known));
    const late = [...today, shot(6, 31)];
    expect(numbers(memoryOf(bar, standingFacts(late)))).toEqual(inOneGo(late));
    const correction: AnyFact = {
      ...shot(13, 0, 'correction'),
      kind: 'correction',
      body: { factId: today[1]?.id ?? '', withdrawn: true, shot: null },
    };
    expect(numbers(memoryOf(bar, standingFacts([...late, correction])))).toEqual(inOneGo([...late, correction]));
    expect(numbers(memoryOf(handedOut(), standingFacts(late)))).toEqual(inOneGo(late));
  });

  it('does not hear again what it was handed out with', () => {
    expect(numbers(memoryOf(handedOut(), standingFacts([...yesterday, ...today])))).toEqual(inOneGo(today));
  });

  it('knows a shot that still drips without keeping it', () => {
    const bar = handedOut();
    const memory = memoryOf(bar, standingFacts(today));
    const dripping = standingFacts([shot(16, 29)])[0];
    if (!dripping) throw new Error('no shot');
    expect(numbers(memoryWith(memory, bar, dripping))).toEqual(inOneGo([...today, shot(16, 29)]));
    expect(numbers(memoryOf(bar, standingFacts(today)))).toEqual(inOneGo(today));
  });
});
