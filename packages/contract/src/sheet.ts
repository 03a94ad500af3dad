/**
 * A sheet is what the house keeps true about one thing: a machine, a coffee, a drink. It is written whole, with an id
 * from the client, based on a revision that the writer has seen; every revision stays readable.
 */

import { z } from 'zod';
import { instant } from './common.ts';

/** A sheet as the house keeps it. */
export interface Kept<T> {
  id: string;
  /** Counts the changes; 1 is the first. */
  revision: number;
  /** No longer in use; nothing of its history is lost. */
  retired: boolean;
  changedBy: string | null;
  changedAt: string | null;
  sheet: T;
}

/** What comes with every sheet that is written. */
export const changeOf = <T extends z.ZodType>(sheet: T) =>
  z.strictObject({
    /** The revision that the writer has seen; 0 for a new sheet. */
    basedOn: z.int().nonnegative(),
    retired: z.boolean().default(false),
    sheet,
  });
/** A sheet as it is written: whole, and based on a revision that the writer saw. */
export interface SheetChange<T> {
  basedOn: number;
  retired: boolean;
  sheet: T;
}

/** The wire form of a sheet as the house keeps it. */
export const keptOf = <T extends z.ZodType>(sheet: T) =>
  z.object({
    id: z.uuid(),
    revision: z.int().nonnegative(),
    retired: z.boolean(),
    changedBy: z.string().nullable(),
    changedAt: instant.nullable(),
    sheet,
  });

/** A page of a long list, sorted and searched on the server. */
export interface Page<T> {
  rows: T[];
  /** How many there are; of a list of many years no more are counted than are a few pages away. */
  total: number;
}

/** The wire form of a page. */
export const pageOf = <T extends z.ZodType>(row: T) => z.object({ rows: z.array(row), total: z.int() });

/** A page of a list has at most so many rows. */
export const MAX_PAGE = 100;
const USUAL_PAGE = 25;
const LONGEST_SEARCH = 80;

/** What a long list can be asked. */
export const listQuery = <S extends string>(sorts: readonly [S, ...S[]]) =>
  z.strictObject({
    search: z.string().trim().max(LONGEST_SEARCH).default(''),
    sort: z.enum(sorts).default(sorts[0] as never),
    descending: z.stringbool().default(false),
    page: z.coerce.number().int().min(1).default(1),
    perPage: z.coerce.number().int().min(1).max(MAX_PAGE).default(USUAL_PAGE),
  });
