import { randomInt } from 'node:crypto';
import { hash, verify } from '@node-rs/argon2';

/** A PIN or a code as it is kept: argon2, salted. */
export const hashPin = (pin: string): Promise<string> => hash(pin);

/** Whether a typed PIN or code is the one that is kept. */
export const isPin = (kept: string, typed: string): Promise<boolean> => verify(kept, typed);

const CODE_RANGE = 100_000_000;
const CODE_DIGITS = 8;

/** A code to hand out. */
export const drawCode = (): string => String(randomInt(CODE_RANGE)).padStart(CODE_DIGITS, '0');

const digitsOf = (pin: string): number[] => Array.from(pin, Number);
const KEYPAD_LINES = ['1470', '0741', '2580', '0852', '3690', '0963', '1590', '3570', '1397', '7913', '3179', '9713'];
const [FIRST_YEAR, LAST_YEAR] = [1930, 2039];
const [MOST_DAYS, MOST_MONTHS] = [31, 12];

/** A run of digits in equal steps: 1234, 9876, 1357, 5555. */
function isRow(digits: readonly number[]): boolean {
  const step = (digits[1] ?? 0) - (digits[0] ?? 0);
  return Math.abs(step) <= 2 && digits.every((digit, i) => i === 0 || digit - (digits[i - 1] ?? 0) === step);
}

/** The same digits over and over, or forth and back: 1212, 123123, 1221. */
function isRepeated(pin: string): boolean {
  const lengths = [1, 2, 3, 4].filter((length) => length < pin.length && pin.length % length === 0);
  const isMirrored = pin === Array.from(pin).toReversed().join('');
  return isMirrored || lengths.some((length) => pin === pin.slice(0, length).repeat(pin.length / length));
}

/** Pairs of one digit: 1122, 778899. */
const isPairs = (digits: readonly number[]): boolean =>
  digits.length % 2 === 0 && digits.every((digit, i) => digit === digits[i - (i % 2)]);

function isDate(pin: string): boolean {
  if (pin.length !== 4) return false;
  const [first, second] = [Number(pin.slice(0, 2)), Number(pin.slice(2))];
  const fits = (day: number, month: number): boolean =>
    day >= 1 && day <= MOST_DAYS && month >= 1 && month <= MOST_MONTHS;
  return fits(first, second) || fits(second, first) || (Number(pin) >= FIRST_YEAR && Number(pin) <= LAST_YEAR);
}

/**
 * Whether many people would choose this PIN: rows, repetitions, pairs, lines on the keypad, years, and days of the year. Of
 * four digits that is about one in ten, and what most guessers try first.
 */
export function isCommonPin(pin: string): boolean {
  const digits = digitsOf(pin);
  return isRow(digits) || isRepeated(pin) || isPairs(digits) || isDate(pin) || KEYPAD_LINES.includes(pin);
}
