import { z } from 'zod';
import { sentences } from './sentences.ts';

/** Ids are made by the device that saw the fact: UUIDv7, so that they sort by time. */
export const factId = z.uuid({ version: 'v7', error: sentences.badId }).toLowerCase();
/** The id of a thing of the house. */
export const entityId = z.uuid({ error: sentences.badId }).toLowerCase();
/** Years that a database knows too, however wrong a clock stands; and no place is farther from Greenwich than this. */
const [FIRST_YEAR, LAST_YEAR] = [1, 9_999];
const FARTHEST_OFFSET_H = 14;

function isMoment(text: string): boolean {
  const year = new Date(text).getUTCFullYear();
  const offsetH = Number(/[+-](\d\d):\d\d$/.exec(text)?.[1] ?? 0);
  return year >= FIRST_YEAR && year <= LAST_YEAR && offsetH <= FARTHEST_OFFSET_H;
}

/** A moment, ISO 8601 with its offset. */
export const instant = z.iso
  .datetime({ offset: true, error: sentences.badInstant })
  .refine(isMoment, { error: sentences.badInstant });

const [FIRST_DAY, LAST_DAY] = ['1970-01-01', '2199-12-31'];

/** A calendar day that a person of the trade could mean, YYYY-MM-DD. */
export const calendarDay = (error: string) =>
  z.iso.date({ error }).refine((text) => text >= FIRST_DAY && text <= LAST_DAY, { error });

/**
 * A schema whose JSON is read as `T`, where `T` says more than zod can: bodies that were validated when they were written.
 */
export const readAs = <T>(schema: z.ZodType): z.ZodType<T, T> => schema as z.ZodType<T, T>;

/** A dial number: no grinder's scale runs beyond this. */
const DIAL_END = 10_000;
/** A dial number. */
export const setting = z
  .number({ error: sentences.badSetting })
  .min(-DIAL_END, { error: sentences.badSetting })
  .max(DIAL_END, { error: sentences.badSetting });
