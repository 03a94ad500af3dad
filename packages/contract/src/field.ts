import { limits, type Quantity } from '@tempera/core/house';
import { z } from 'zod';
import { sentences } from './sentences.ts';

/** Fields that sheets are made of, each with the sentence that a refused one shows. */

const LONGEST_NAME = 60;
const LONGEST_NOTE = 300;

export const name = z
  .string({ error: sentences.nameMissing })
  .trim()
  .min(1, { error: sentences.nameMissing })
  .max(LONGEST_NAME, { error: sentences.nameTooLong });

export const note = z.string().trim().max(LONGEST_NOTE, { error: sentences.reasonTooLong });

export const reason = z
  .string({ error: sentences.reasonMissing })
  .trim()
  .min(1, { error: sentences.reasonMissing })
  .max(LONGEST_NOTE, { error: sentences.reasonTooLong });

/** A calendar day, YYYY-MM-DD. */
export const day = z.iso.date({ error: sentences.badDay });

/** A number that could be meant; `what` and `unit` are for the sentence. */
export const numberWithin = (what: string, min: number, max: number, unit: string) => {
  const error = sentences.between(what, min, max, unit);
  return z.number({ error }).min(min, { error }).max(max, { error });
};

export const countWithin = (what: string, min: number, max: number) => {
  const error = sentences.between(what, min, max, '');
  return z.int({ error }).min(min, { error }).max(max, { error });
};

/** A measured number inside the limits that the house refuses beyond. */
export const quantity = (of: Quantity) => {
  const { accept, unit } = limits[of];
  const error = sentences.outOfLimits(of, accept[0], accept[1], unit);
  return z.number({ error }).min(accept[0], { error }).max(accept[1], { error });
};

const ROOM_CM = 5_000;
/** Where a piece stands, seen from above, in cm from the plan's left and top edge. */
export const place = z.object({
  xCm: numberWithin('place', 0, ROOM_CM, 'cm'),
  yCm: numberWithin('place', 0, ROOM_CM, 'cm'),
  widthCm: numberWithin('width', 5, ROOM_CM, 'cm'),
  depthCm: numberWithin('depth', 5, ROOM_CM, 'cm'),
});
export type Place = z.infer<typeof place>;
