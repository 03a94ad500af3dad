import type { MassTrace } from './trace.ts';

/** A trace as it is kept: its rate, and the samples' differences in hundredths of a gram, packed. */
export interface PackedTrace {
  hz: number;
  packed: string;
}

const CENTIGRAMS = 100;
/** Six bits a character: five of the number, one that says whether more follow. */
const MORE = 32;
const BITS = 5;
const ALPHABET = 'ABCDEFGHIJKLMNOPQRSTUVWXYZabcdefghijklmnopqrstuvwxyz0123456789-_';
/** A lost sample. */
const LOST = '.';

/**
 * Packs a trace: from one sample to the next a scale moves by few hundredths of a gram, so a sample takes one or two
 * characters (differences, zig-zag, then base 32 digits of variable length). Samples keep hundredths of a gram.
 */
export function packTrace({ hz, massG }: MassTrace): PackedTrace {
  let last = 0;
  let packed = '';
  for (const mass of massG) {
    if (mass === null) {
      packed += LOST;
      continue;
    }
    const now = Math.round(mass * CENTIGRAMS);
    const change = now - last;
    last = now;
    let rest = change < 0 ? -2 * change - 1 : 2 * change;
    while (rest >= MORE) {
      packed += ALPHABET.charAt(MORE + (rest % MORE));
      rest = Math.floor(rest / MORE);
    }
    packed += ALPHABET.charAt(rest);
  }
  return { hz, packed };
}

/** @throws RangeError when a character is none of ours */
export function unpackTrace({ hz, packed }: PackedTrace): { hz: number; massG: (number | null)[] } {
  const massG: (number | null)[] = [];
  let last = 0;
  let rest = 0;
  let place = 1;
  for (const character of packed) {
    if (character === LOST) {
      massG.push(null);
      continue;
    }
    const digit = ALPHABET.indexOf(character);
    if (digit < 0) throw new RangeError(`unpackTrace: "${character}" is no digit of a packed trace`);
    rest += (digit % MORE) * place;
    place *= 2 ** BITS;
    if (digit >= MORE) continue;
    last += rest % 2 === 0 ? rest / 2 : -(rest + 1) / 2;
    massG.push(last / CENTIGRAMS);
    rest = 0;
    place = 1;
  }
  return { hz, massG };
}
