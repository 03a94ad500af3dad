import { limits, type Quantity } from '@tempera/core/house';
import { z } from 'zod';
import { calendarDay } from './common.ts';
import { quantityWord, sentences } from './sentences.ts';

/** Fields that sheets are made of, each with the sentence that a refused one shows. */

const LONGEST_NAME = 60;
const LONGEST_NOTE = 300;

/** What a thing is called. */
export const name = z
  .string({ error: sentences.nameMissing })
  .trim()
  .min(1, { error: sentences.nameMissing })
  .max(LONGEST_NAME, { error: sentences.nameTooLong });

/** A few words that may be missing. */
export const note = z.string().trim().max(LONGEST_NOTE, { error: sentences.reasonTooLong });

/** Why something was changed. */
export const reason = z
  .string({ error: sentences.reasonMissing })
  .trim()
  .min(1, { error: sentences.reasonMissing })
  .max(LONGEST_NOTE, { error: sentences.reasonTooLong });

/** A calendar day, YYYY-MM-DD. */
export const day = calendarDay(sentences.badDay);

/** Limits of a number, in the unit that it is kept in. */
export interface NumberLimits {
  what: string;
  min: number;
  max: number;
  unit: string;
}

const numberLimits = new WeakMap<z.ZodType, NumberLimits>();

/** A number inside limits that its schema remembers, so that a refusal can be told in another unit too. */
function limited<S extends z.ZodNumber>(number: (error: string) => S, limits: NumberLimits): S {
  const error = sentences.outOfLimits(limits);
  const { min, max } = limits;
  const schema = number(error).min(min, { error }).max(max, { error });
  numberLimits.set(schema, limits);
  return schema;
}

/** A number that could be meant; `what` and `unit` are for the sentence. */
export const numberWithin = (what: string, min: number, max: number, unit: string) =>
  limited((error) => z.number({ error }), { what: `The ${what}`, min, max, unit });

/** A whole number that could be meant. */
export const countWithin = (what: string, min: number, max: number) =>
  limited((error) => z.int({ error }), { what: `The ${what}`, min, max, unit: '' });

/** A measured number inside the limits that the house refuses beyond. */
export const quantity = (of: Quantity) => {
  const { accept, unit } = limits[of];
  return limited((error) => z.number({ error }), { what: quantityWord(of), min: accept[0], max: accept[1], unit });
};

/** The limits of the number that stands at a path of a schema; null where none stands, or one without limits. */
export function limitsAt(schema: z.ZodType, path: readonly PropertyKey[]): NumberLimits | null {
  const at = path.reduce<z.ZodType | undefined>((within, key) => {
    const inner = within && unwrapped(within);
    if (inner instanceof z.ZodObject) return (inner.shape as Record<PropertyKey, z.ZodType | undefined>)[key];
    return inner instanceof z.ZodArray ? (inner.element as z.ZodType) : undefined;
  }, schema);
  const number = at && unwrapped(at);
  return number instanceof z.ZodNumber ? (numberLimits.get(number) ?? null) : null;
}

/** What a schema is of that may also be missing. */
function unwrapped(schema: z.ZodType): z.ZodType {
  const wraps = schema instanceof z.ZodOptional || schema instanceof z.ZodNullable || schema instanceof z.ZodDefault;
  return wraps ? unwrapped(schema.unwrap() as z.ZodType) : schema;
}

const ROOM_CM = 5_000;
/** Where a piece stands, seen from above, in cm from the plan's left and top edge. */
export const place = z.object({
  xCm: numberWithin('place', 0, ROOM_CM, 'cm'),
  yCm: numberWithin('place', 0, ROOM_CM, 'cm'),
  widthCm: numberWithin('width', 5, ROOM_CM, 'cm'),
  depthCm: numberWithin('depth', 5, ROOM_CM, 'cm'),
});
/** Where a piece stands, cm. */
export type Place = z.infer<typeof place>;
