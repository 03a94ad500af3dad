import type { BarModel } from './barModel.ts';
import type { BarMemory, GrinderMemory } from './memoryState.ts';
import type { Habit } from './habit.ts';
import type { Belief } from './belief.ts';

/** The shape of a packed memory; another shape cannot be read. */
export const MEMORY_FORMAT = 2;
/** The engine that made the numbers: raise it whenever the same facts make others, and every memory is made again. */
export const MEMORY_ENGINE = 9;

/** A memory as JSON keeps it, number by number. */
export type PackedMemory = Omit<BarMemory, 'base' | 'grinders'> & {
  format: number;
  base: PackedBelief & Pick<BarModel, 'noise' | 'hands' | 'ways'>;
  grinders: Record<string, PackedGrinder>;
};
interface PackedBelief {
  names: readonly string[];
  mean: number[];
  covariance: number[];
}
type PackedGrinder = Omit<GrinderMemory, 'habit'> & { habit?: Omit<Habit, 'belief'> & { belief: PackedBelief } };

export function packMemory({ base, grinders, groups, air }: BarMemory): PackedMemory {
  return {
    format: MEMORY_FORMAT,
    grinders: each(grinders, ({ habit, ...grinder }) => ({
      ...grinder,
      ...(habit && { habit: { ...habit, belief: packBelief(habit.belief) } }),
    })),
    groups,
    ...(air && { air }),
    base: {
      ...packBelief(base.belief),
      noise: base.noise,
      hands: base.hands ?? {},
      ways: base.ways ?? {},
    },
  };
}

/** @returns null for a memory of another shape */
export function unpackMemory({ format, base, grinders, groups, air }: PackedMemory): BarMemory | null {
  if (format !== MEMORY_FORMAT) return null;
  const { noise, hands = {}, ways = {} } = base;
  return {
    base: { belief: unpackBelief(base), noise, hands, ways },
    grinders: each(grinders, ({ habit, ...grinder }) => ({
      ...grinder,
      ...(habit && { habit: { ...habit, belief: unpackBelief(habit.belief) } }),
    })),
    groups,
    ...(air && { air }),
  };
}

const each = <A, B>(of: Readonly<Record<string, A>>, change: (one: A) => B): Record<string, B> =>
  Object.fromEntries(Object.entries(of).map(([id, one]) => [id, change(one)]));

const packBelief = ({ names, mean, covariance }: Belief): PackedBelief => ({
  names,
  mean: [...mean],
  covariance: lowerHalf(names.length, covariance),
});

const unpackBelief = ({ names, mean, covariance }: PackedBelief): Belief => ({
  names,
  mean: Float64Array.from(mean),
  covariance: fromLowerHalf(names.length, covariance),
});

/** A covariance is symmetric to the bit, so half of it tells all. */
function lowerHalf(size: number, full: Float64Array): number[] {
  const half: number[] = [];
  for (let i = 0; i < size; i += 1) for (let j = 0; j <= i; j += 1) half.push(full[i * size + j] ?? 0);
  return half;
}

function fromLowerHalf(size: number, half: readonly number[]): Float64Array {
  const full = new Float64Array(size * size);
  let at = 0;
  for (let i = 0; i < size; i += 1) {
    for (let j = 0; j <= i; j += 1) {
      const value = half[at] ?? 0;
      full[i * size + j] = value;
      full[j * size + i] = value;
      at += 1;
    }
  }
  return full;
}
