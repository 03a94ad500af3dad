import { limits, type Quantity } from '@tempera/core/house';
import { z } from 'zod';
import { sentences } from './sentences.ts';

/** Ids are made by the device that saw the fact: UUIDv7, so that they sort by time. */
export const factId = z.uuid({ version: 'v7', error: sentences.badId });
export const entityId = z.uuid({ error: sentences.badId });
export const instant = z.iso.datetime({ offset: true, error: sentences.badInstant });

/** A measured number inside the limits that the house refuses beyond. */
export const quantity = (name: Quantity) => {
  const { accept, unit } = limits[name];
  const error = sentences.outOfLimits(name, accept[0], accept[1], unit);
  return z.number({ error }).min(accept[0], { error }).max(accept[1], { error });
};

/** A dial number: no grinder's scale runs beyond this. */
const DIAL_END = 10_000;
export const setting = z
  .number({ error: sentences.badSetting })
  .min(-DIAL_END, { error: sentences.badSetting })
  .max(DIAL_END, { error: sentences.badSetting });
