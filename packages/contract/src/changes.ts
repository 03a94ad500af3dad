import { z } from 'zod';
import { entityId, instant } from './common.ts';
import { sheetPaths, type SheetKind } from './sheetPaths.ts';

/** What happens at the door. */
export const doorEvents = [
  'signedIn',
  'signedOut',
  'wrongPin',
  'lockedOut',
  'firstPin',
  'pinChanged',
  'codeHanded',
  'othersEnded',
  'passwordSet',
  'passkeyMade',
  'passkeyForgotten',
  'provenAgain',
  'deviceEnrolled',
  'deviceStruckOff',
] as const;
export type DoorEvent = (typeof doorEvents)[number];

const sheetKinds = Object.keys(sheetPaths) as [SheetKind, ...SheetKind[]];

/** What a page of changes can be asked for: older than a moment. */
export const changesQuerySchema = z.strictObject({ before: instant.optional() });

/** One change of the house, its people or its doors: who, when, and from where. */
const change = z.object({
  id: entityId,
  at: instant,
  what: z.enum([...doorEvents, ...sheetKinds, 'plan', 'recipe', 'policies']),
  /** Who did it; null: nobody who was known. */
  by: z.string().nullable(),
  /** Whom or what it is about, by name. */
  about: z.string(),
  aboutId: entityId.nullable(),
  /** Which version it made; null at the door. */
  version: z.int().nullable(),
  retired: z.boolean(),
  reason: z.string().nullable(),
  /** Of the device, where it was noted. */
  address: z.string().nullable(),
});

/** A page of changes, newest first. */
export const changesSchema = z
  .object({ changes: z.array(change), nextBefore: instant.nullable() })
  .meta({ id: 'Changes' });
/** A page of changes, newest first. */
export type Changes = z.infer<typeof changesSchema>;
