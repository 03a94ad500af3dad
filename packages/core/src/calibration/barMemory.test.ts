import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { standingFacts, type AnyFact, type Entry, type ShotBody } from '../facts/index.ts';
import { factMaker, stepMaker } from '../facts/testFacts.ts';
import { seededRandom, gaussian } from '../numbers/index.ts';
import { usualPolicy } from './adviceCase.ts';
import { advise } from './advise.ts';
import { emptyMemory, updateWithFacts, isMadeWith, type GrinderInMemory, type MemoryContext } from './barMemory.ts';
import { groupOf, knownOf, levelOf, responseOf } from './barModel.ts';
import { benchState } from './benchState.ts';
import type { BarMemory } from './memoryState.ts';
import { packMemory, unpackMemory } from './packMemory.ts';
import { posterior } from './recall.ts';
import { aCase } from './testCases.ts';

const { recipe } = aCase();
const grinder = (id: string): GrinderInMemory & { dial: { range: { min: number; max: number } } } => ({
  id,
  dial: { stepMarks: 1, finer: 'down', range: { min: 1, max: 60 } },
  secondsPerMark: 2.5,
  retentionG: null,
  seedSetting: 30,
});
const context: MemoryContext = {
  grinders: new Map(['house', 'guest', 'decaf'].map((id) => [id, grinder(id)])),
  recipeOf: () => recipe,
};
const start = Date.parse('2031-05-04T06:00:00Z');
const at = (minutes: number): number => start + minutes * 60_000;
const hear = (entries: readonly Entry[], from: BarMemory = emptyMemory): BarMemory =>
  updateWithFacts(from, standingFacts(entries), context);

/** A bar at work for some days: shots of three grinders through two groups, moves, purges, bags and locks. */
function worked(days: number, locks: boolean): AnyFact[] {
  const make = factMaker('2031-05-04T06:00:00Z');
  const random = seededRandom(7);
  const facts: AnyFact[] = [];
  const setting = new Map([
    ['house', 30],
    ['guest', 28],
    ['decaf', 33],
  ]);
  const stands = (id: string): number => setting.get(id) ?? 30;
  for (let day = 0; day < days; day += 1) {
    for (const [i, id] of ['house', 'guest', 'decaf'].entries()) {
      const on = <F extends AnyFact>(fact: F): F => ({ ...fact, grinderId: id, groupId: i === 0 ? 'a' : 'b' });
      const minute = day * 1_440 + i * 20;
      if (day % 3 === i) facts.push(on(make('newBag', {}, minute)));
      for (let k = 0; k < 4; k += 1) {
        const x = 30 - stands(id);
        const timeS = 27 * Math.exp(0.12 * x + 0.05 * gaussian(random)) * (k === 0 && day === 2 ? 0.75 : 1);
        facts.push(
          on(make('shot', { setting: stands(id), timeS, doseG: 18 + 0.1 * gaussian(random) }, minute + 3 * k)),
        );
        if (k === 1) {
          const to = stands(id) + (random() < 0.5 ? 1 : -1);
          facts.push(on(make('collarMove', { from: stands(id), to }, minute + 3 * k + 1)));
          facts.push(on(make('purge', { purgeG: 20 }, minute + 3 * k + 1.5)));
          setting.set(id, to);
        }
      }
      if (locks) facts.push(on(make('lock', { setting: stands(id) }, minute + 15)));
    }
  }
  return facts;
}

const numbersOf = (memory: BarMemory, minutes: number): number[] => {
  const { belief, noise } = posterior(memory, at(minutes));
  return [...belief.mean, ...belief.covariance, noise.shape, noise.scale];
};

describe('what the bar remembers', () => {
  it('learns what a mark is worth on one grinder, and leaves the other as believed', () => {
    const make = factMaker();
    const facts = [30, 28, 26, 30, 28, 26].flatMap((setting) => [
      make('purge', { purgeG: 30 }),
      make('shot', { setting, timeS: 27 * Math.exp(0.15 * (30 - setting)) }),
    ]);
    const house = facts.map((fact) => ({ ...fact, grinderId: 'house' }));
    const bar = posterior(hear([...house, { ...make('shot'), grinderId: 'guest' }]), at(20));
    expect(knownOf(bar, responseOf('house'))?.mean).toBeGreaterThan(0.13);
    expect(knownOf(bar, responseOf('guest'))?.mean).toBeCloseTo(2.5 / Math.sqrt(750), 2);
  });

  it('doubts a grinder more the longer nobody pulled it, and a group too', () => {
    const memory = hear(worked(2, true));
    const [soon, late] = [posterior(memory, at(1_500)), posterior(memory, at(1_500 + 14 * 1_440))];
    for (const name of [levelOf('house'), groupOf('a'), responseOf('house')]) {
      expect(knownOf(late, name)?.sd).toBeGreaterThan(knownOf(soon, name)?.sd ?? Infinity);
    }
    // Never more than of a grinder that nobody has pulled.
    expect(knownOf(posterior(memory, at(500 * 1_440)), levelOf('house'))?.sd).toBeLessThan(0.5);
  });

  it('does not depend on where locks fell', () => {
    const [locked, unlocked] = [hear(worked(20, true)), hear(worked(20, false))];
    expect(numbersOf(locked, 30_000)).toEqual(numbersOf(unlocked, 30_000));
  });

  it('is the same to the bit taken up from a packed copy at any fact, as heard in one go', () => {
    const facts = worked(16, true);
    const whole = numbersOf(hear(facts), 24_000);
    for (const cut of [1, 7, 100, facts.length - 3]) {
      const packed = JSON.parse(JSON.stringify(packMemory(hear(facts.slice(0, cut))))) as Parameters<
        typeof unpackMemory
      >[0];
      const taken = unpackMemory(packed);
      expect(taken).not.toBeNull();
      expect(numbersOf(hear(facts.slice(cut), taken ?? emptyMemory), 24_000)).toEqual(whole);
    }
    expect(unpackMemory({ ...packMemory(emptyMemory), format: 99 })).toBeNull();
  });

  it('finds out a channel by what came after it, though a lock lies between', () => {
    const make = factMaker();
    const shot = (timeS: number, body: Partial<ShotBody> = {}) => ({
      ...make('shot', { timeS, ...body }),
      grinderId: 'house',
    });
    const later = (): AnyFact[] => [
      { ...make('lock'), grinderId: 'house' },
      ...[27, 27.4, 26.8, 27.2].map((timeS) => shot(timeS)),
    ];
    const level = (facts: AnyFact[]): number => knownOf(posterior(hear(facts), at(30)), levelOf('house'))?.mean ?? NaN;
    const surprised = level([shot(19), ...later()]);
    // Pulled down by it far less than an even share of the five shots would be.
    expect(surprised - level([shot(27.1), ...later()])).toBeGreaterThan(Math.log(19 / 27) / 5 / 2);
  });

  it('forgets what nobody has used for two months, and does not grow with the coffees that came and went', () => {
    const make = factMaker();
    const facts = Array.from({ length: 12 }, (_, month) => [
      { ...make('newBag', { coffeeId: `coffee ${month}`, otherCoffee: true }, month * 43_200), grinderId: 'guest' },
      ...Array.from({ length: 30 }, (_x, k) => ({
        ...make('shot', {}, month * 43_200 + 10 + k * 60),
        grinderId: 'guest',
      })),
    ]).flat();
    const memory = hear(facts);
    expect(memory.grinders.guest?.levels.length).toBeLessThanOrEqual(4);
    expect(posterior(memory, at(13 * 43_200)).belief.names.length).toBeLessThan(9);
  });

  it('knows a coffee again that comes back into the hopper', () => {
    const make = factMaker();
    const on = (fact: AnyFact): AnyFact => ({ ...fact, grinderId: 'house' });
    const pulled = (timeS: number, from: number): AnyFact[] =>
      Array.from({ length: 4 }, (_, k) => on(make('shot', { timeS }, from + k)));
    const first = { coffeeId: 'blend' };
    const facts = [
      on(make('newBag', first, 0)),
      ...pulled(27, 1),
      on(make('newBag', { coffeeId: 'floral', otherCoffee: true }, 10)),
      ...pulled(20, 11),
      on(make('newBag', { ...first, otherCoffee: true }, 20)),
    ];
    const bar = posterior(hear(facts), at(21));
    expect(hear(facts).grinders.house?.coffee).toBeNull();
    expect(Math.exp(knownOf(bar, levelOf('house'))?.mean ?? 0)).toBeCloseTo(27, 0);
    expect(Math.exp(knownOf(bar, levelOf('house', 'floral'))?.mean ?? 0)).toBeLessThan(22);
  });

  it('leaves out grinders that nobody knows, and is made anew when a sheet says something else', () => {
    const make = factMaker();
    expect(hear([make('shot')]).grinders).toEqual({});
    const memory = hear(worked(1, true));
    expect(isMadeWith(memory, context)).toBe(true);
    const other = new Map(context.grinders).set('house', { ...grinder('house'), seedSetting: 25 });
    expect(isMadeWith(memory, { ...context, grinders: other })).toBe(false);
  });
});

describe('the room’s air', () => {
  const step = stepMaker('2031-05-04T06:00:00Z');
  const told = (tempC: number, humidityPct: number, minute: number) =>
    step({ step: 'air', tempC, humidityPct, measuredBy: 'device' }, 4 * 1_440 + minute);
  const before = hear(worked(4, false));
  /** Variance of the level beside what the time alone adds. */
  const grew = (facts: Parameters<typeof hear>[0]): number => {
    const at4 = at(4 * 1_440 + 10);
    const of = (memory: BarMemory) => knownOf(posterior(memory, at4), levelOf('house', null))!.sd ** 2;
    return of(hear(facts, before)) - of(before);
  };

  it('makes levels less sure by as much as it changed, and by nothing where it is only told', () => {
    expect(grew([told(20, 50, 0)])).toBeCloseTo(0, 9);
    expect(grew([told(20, 50, 0), told(20, 50, 5)])).toBeCloseTo(0, 9);
    // 5 °C are a jump of sd 0.03; 3 °C and 8 points as much: the root of 0.6² and 0.8².
    expect(grew([told(20, 50, 0), told(25, 50, 5)])).toBeCloseTo(0.03 ** 2, 6);
    expect(grew([told(20, 50, 0), told(23, 42, 5)])).toBeCloseTo(0.03 ** 2, 6);
  });

  it('is never heard as more than two jumps, and stays known to the next reading', () => {
    expect(grew([told(20, 50, 0), told(60, 50, 5)])).toBeCloseTo(0.06 ** 2, 6);
    const packed = unpackMemory(structuredClone(packMemory(hear([told(20, 50, 0)], before))))!;
    expect(packed.air).toEqual({ tempC: 20, humidityPct: 50 });
  });
});

describe('new burrs', () => {
  const step = stepMaker('2031-05-04T06:00:00Z');
  const minutes = 4 * 1_440;
  const fitted = (what: 'burrs' | 'filter', stationId: string) =>
    step({ step: 'upkept', what, stationId, by: '' }, minutes);
  const levelSd = (memory: BarMemory, id: string, afterMin: number) =>
    knownOf(posterior(memory, at(minutes + afterMin)), levelOf(id, null))!.sd;
  const before = hear(worked(4, false));

  it('make one grinder as unsure as after a service, and no other', () => {
    const after = hear([fitted('burrs', 'house')], before);
    expect(levelSd(after, 'house', 1) ** 2 - levelSd(before, 'house', 1) ** 2).toBeGreaterThan(0.2 ** 2);
    expect(levelSd(after, 'guest', 1)).toBe(levelSd(before, 'guest', 1));
    expect(hear([fitted('filter', 'house')], before)).toBe(before);
  });

  it('let it walk faster while they lose their first edge', () => {
    const grew = (memory: BarMemory): number => levelSd(memory, 'house', 241) ** 2 - levelSd(memory, 'house', 1) ** 2;
    expect(grew(hear([fitted('burrs', 'house')], before))).toBeGreaterThan(2 * grew(before));
  });

  it('are as any others once three bags have gone through', () => {
    const make = factMaker();
    const bag = (minute: number) => ({ ...make('newBag', {}, minutes + minute), grinderId: 'house' });
    const grewFrom = (facts: Parameters<typeof hear>[0], fromMin: number): number => {
      const memory = hear(facts, before);
      return levelSd(memory, 'house', fromMin + 20) ** 2 - levelSd(memory, 'house', fromMin) ** 2;
    };
    const burrs = fitted('burrs', 'house');
    const usual = grewFrom([bag(10), bag(20), bag(30)], 40);
    expect(grewFrom([burrs, bag(10), bag(20)], 40)).toBeCloseTo(4 * usual, 6);
    expect(grewFrom([burrs, bag(10), bag(20), bag(30)], 40)).toBeCloseTo(usual, 6);
  });
});

describe('the memory of a bench', () => {
  const make = factMaker();
  const facts: AnyFact[] = [
    make('shot', { setting: 30, timeS: 22 }),
    make('collarMove', { from: 30, to: 28 }),
    make('purge', { purgeG: 25 }),
    make('shot', { setting: 28, timeS: 32 }),
    make('lock', { setting: 28, doseG: 17.6 }),
    make('shot', { setting: 28, timeS: 24 }),
  ].map((fact) => ({ ...fact, grinderId: 'house' }));
  const bench = (entries: readonly AnyFact[], memory: BarMemory | null, minutes = 7) =>
    benchState(standingFacts(entries), grinder('house'), recipe, usualPolicy, at(minutes), memory);

  it('says and advises the same after the next shot, wherever locks fell among the ones before', () => {
    const timeS = fc.double({ min: 23, max: 34, noNaN: true }).map((value) => Math.round(value * 10) / 10);
    const poured = fc.array(fc.record({ timeS, locked: fc.boolean() }), { minLength: 2, maxLength: 12 });
    fc.assert(
      fc.property(poured, (shots) => {
        const factsWith = (locks: boolean): AnyFact[] => {
          const make = factMaker('2031-05-04T06:00:00Z');
          return shots.flatMap((one, i) => {
            const on = <F extends AnyFact>(fact: F): F => ({ ...fact, grinderId: 'house', groupId: 'a' });
            const shot = on(make('shot', { timeS: one.timeS }, 3 * i));
            const lock = on(make('lock', { setting: 30, doseG: 18 }, 3 * i + 1));
            return locks && one.locked && i < shots.length - 1 ? [shot, lock] : [shot];
          });
        };
        const advised = (facts: AnyFact[]) => advise(bench(facts, hear(facts)).adviceCase);
        const [plain, split] = [advised(factsWith(false)), advised(factsWith(true))];
        expect(split.fit.line.level).toBeCloseTo(plain.fit.line.level, 9);
        expect(split.here.inWindow).toBeCloseTo(plain.here.inWindow, 9);
        const asked = ({ action, setting, doseG, closeEnough }: typeof plain) => ({
          action,
          setting,
          doseG,
          stays: closeEnough !== null,
        });
        expect(asked(split)).toEqual(asked(plain));
      }),
      { numRuns: 300 },
    );
  });

  it('says the same before and after a lock that was made on the same shots', () => {
    const shots = facts.slice(0, 4);
    const before = advise(bench(shots, hear(shots)).adviceCase);
    const locked = facts.slice(0, 5);
    const after = advise(bench(locked, hear(locked)).adviceCase);
    expect(after.fit.line).toEqual(before.fit.line);
    expect(after.here.inWindow).toBe(before.here.inWindow);
  });

  it('hears each shot once, those of the bench as those before it', () => {
    const { fit } = advise(bench(facts, hear(facts)).adviceCase);
    const bar = posterior(hear(facts), at(7));
    expect(fit.bar.belief.mean).toEqual(bar.belief.mean);
    expect(fit.heard).toHaveLength(1);
    expect(fit.heard[0]?.normalisedS).toBeCloseTo(24, 6);
    // What was known before the last shot leaves just that one out.
    const without = posterior(hear(facts), at(7), facts.at(-1)?.id ?? null);
    expect(fit.before.level).toBeCloseTo(
      (knownOf(without, levelOf('house'))?.mean ?? 0) + (knownOf(without, groupOf('group'))?.mean ?? 0),
      12,
    );
  });

  it('makes the next move smaller on a grinder that was found to answer more', () => {
    const knowing = bench(facts, hear(facts));
    expect(knowing.adviceCase.trimG).toBeCloseTo(-0.4, 10);
    const [with_, without] = [advise(knowing.adviceCase), advise(bench(facts, null).adviceCase)];
    expect(with_.fit.line.response).toBeGreaterThan(1.1 * without.fit.line.response);
    expect(with_.marks).toBeLessThanOrEqual(without.marks);
  });

  it('keeps a trimmed dose over the night, until a shot speaks', () => {
    const state = bench(facts.slice(0, 5), null, 5);
    expect(advise(state.adviceCase)).toMatchObject({ action: 'repeat', doseG: 17.6, setting: 28 });
  });

  it('carries a level over to a recipe with another yield', () => {
    const shots = Array.from({ length: 6 }, (_, k) => ({ ...make('shot', {}, 20 + k), grinderId: 'house' }));
    const longer = { ...recipe, yieldG: 45 };
    const { adviceCase } = benchState(standingFacts(shots), grinder('house'), longer, usualPolicy, at(30), hear(shots));
    // 27 s for 36 g: 0.22 of it to the first drop, the rest as (45 / 36)^0.95.
    const expected = 27 * (0.22 + 0.78 * (45 / 36) ** 0.95);
    expect(advise(adviceCase).here.timeS).toBeCloseTo(expected, 0);
  });
});
