import { z } from 'zod';

/** What the line tools share: one JSON value in, one JSON value out. */
export const positive = z.number().positive();

/** The answer to a line that is not accepted: where it is wrong, and how. */
export const lineErrorSchema = z.strictObject({ error: z.strictObject({ path: z.string(), message: z.string() }) });

/** A recipe as the line tools read it. */
export const recipeLine = z.strictObject({
  doseG: positive,
  yieldG: positive,
  timeS: z
    .strictObject({ min: positive, max: positive })
    .refine((window) => window.min < window.max, { error: 'the window needs min below max' }),
  doseToleranceG: positive.optional(),
});

/** A number as it is shown: enough digits to act on, none for show. */
export const rounded = (value: number, digits: number): number => Number(value.toFixed(digits));

/** Digits of seconds and grams, and of chances. */
export const QUANTITY_DIGITS = 2;
/** Digits of a chance in an answer. */
export const CHANCE_DIGITS = 4;
