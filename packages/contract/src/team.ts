import { massUnits, pressureUnits, temperatureUnits, volumeUnits } from '@tempera/core/house';
import { z } from 'zod';
import { entityId } from './common.ts';
import { name } from './field.ts';
import { cafeSheetSchema } from './house.ts';
import { sentences } from './sentences.ts';

/** What people are in a café. */
export const roles = ['head', 'barista', 'trainee', 'office'] as const;
/** What somebody is in a café. */
export type Role = (typeof roles)[number];

const MIN_PIN = 4;
const MAX_PIN = 8;
/** A PIN as it is typed. */
export const pin = z
  .string()
  .regex(new RegExp(`^\\d{${MIN_PIN},${MAX_PIN}}$`), { error: sentences.badPin(MIN_PIN, MAX_PIN) });

/** Who signs in, and by what. */
export const signInSchema = z.strictObject({ personId: entityId, pin }).meta({ id: 'SignIn' });

/** What this person reads and types in; everything is kept in g, ml, degC and bar. */
export const unitsSchema = z
  .strictObject({
    mass: z.enum(massUnits),
    volume: z.enum(volumeUnits),
    temperature: z.enum(temperatureUnits),
    pressure: z.enum(pressureUnits),
  })
  .meta({ id: 'Units' });

const person = z.object({ id: entityId, name: z.string(), role: z.enum(roles) }).meta({ id: 'Person' });
const site = z
  .object({ id: entityId, name: z.string(), timeZone: z.string(), dayStartsMin: z.int() })
  .meta({ id: 'Site' });

/** Somebody of the house. */
export type Person = z.infer<typeof person>;
/** A café, and its clock. */
export type Site = z.infer<typeof site>;

/** What a tablet may know before anyone signed in. */
export const welcomeSchema = z
  .object({
    sites: z.array(site.extend({ people: z.array(person) })),
    /** Only in the demo: PINs by person, how fast the simulated bar runs and from which seed, and the groups whose screens are clogged. */
    demo: z
      .object({
        pins: z.record(entityId, z.string()),
        speed: z.number().positive(),
        clogged: z.array(entityId),
        /** The simulated bar's draws and air hang on this alone; null: on the moment, as in life. */
        seed: z.int().nullable(),
      })
      .nullable(),
  })
  .meta({ id: 'Welcome' });
/** What a tablet may know before anyone signed in. */
export type Welcome = z.infer<typeof welcomeSchema>;

/** A café that begins: itself, and the first person, who is its head barista. */
export const newCafeSchema = z
  .strictObject({ id: entityId, cafe: cafeSheetSchema, head: z.strictObject({ id: entityId, name, pin }) })
  .meta({ id: 'NewCafe' });
/** A café that begins, with its head barista. */
export type NewCafe = z.infer<typeof newCafeSchema>;

/** Who is signed in, where, and in which units they read. */
export const sessionSchema = z.object({ person, site, units: unitsSchema }).meta({ id: 'Session' });
/** Who is signed in, where, and in which units they read. */
export type Session = z.infer<typeof sessionSchema>;
