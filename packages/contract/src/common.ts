import { z } from 'zod';
import { sentences } from './sentences.ts';

/** Ids are made by the device that saw the fact: UUIDv7, so that they sort by time. */
export const factId = z.uuid({ version: 'v7', error: sentences.badId });
/** The id of a thing of the house. */
export const entityId = z.uuid({ error: sentences.badId });
/** A moment, ISO 8601 with its offset. */
export const instant = z.iso.datetime({ offset: true, error: sentences.badInstant });

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
