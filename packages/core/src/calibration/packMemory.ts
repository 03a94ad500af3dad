import type { BarModel } from './barModel.ts';
import type { BarMemory } from './memoryState.ts';
import type { Belief } from './belief.ts';

/** The shape of a packed memory; another shape cannot be read. */
export const MEMORY_FORMAT = 1;
/** The engine that made the numbers: raise it whenever the same facts make others, and every memory is made again. */
export const MEMORY_ENGINE = 8;

/** A memory as JSON keeps it, number by number. */
export type PackedMemory = Omit<BarMemory, 'base'> & {
  format: number;
  base: { names: readonly string[]; mean: number[]; covariance: number[] } & Pick<BarModel, 'noise' | 'hands' | 'ways'>;
};

export function packMemory({ base, grinders, groups, air }: BarMemory): PackedMemory {
  const { names, mean, covariance } = base.belief;
  return {
    format: MEMORY_FORMAT,
    grinders,
    groups,
    ...(air && { air }),
    base: {
      names,
      mean: [...mean],
      covariance: lowerHalf(names.length, covariance),
      noise: base.noise,
      hands: base.hands ?? {},
      ways: base.ways ?? {},
    },
  };
}

/** @returns null for a memory of another shape */
export function unpackMemory({ format, base, grinders, groups, air }: PackedMemory): BarMemory | null {
  if (format !== MEMORY_FORMAT) return null;
  const { names, mean, covariance, noise, hands = {}, ways = {} } = base;
  const belief: Belief = {
    names,
    mean: Float64Array.from(mean),
    covariance: fromLowerHalf(names.length, covariance),
  };
  return { base: { belief, noise, hands, ways }, grinders, groups, ...(air && { air }) };
}

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
