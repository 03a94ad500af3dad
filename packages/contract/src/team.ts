import { massUnits, pressureUnits, temperatureUnits, volumeUnits } from '@tempera/core/house';
import { z } from 'zod';
import { entityId, instant } from './common.ts';
import { day, name } from './field.ts';
import { cafeSheetSchema } from './house.ts';
import { usedPasskeySchema } from './passkeys.ts';
import { sentences } from './sentences.ts';
import { skills } from './signOffs.ts';

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

const CODE_DIGITS = 8;
/** The code that a head hands out once: for a first PIN, or a new one. */
export const oneTimeCode = z
  .string()
  .transform((typed) => typed.replaceAll(/\D/g, ''))
  .pipe(z.string().regex(new RegExp(`^\\d{${CODE_DIGITS}}$`), { error: sentences.badCode(CODE_DIGITS) }));

const MOST_SIGN_OFFS = 40;
/** A skill of the house, or one machine or grinder by its id (`PieceSkill`). */
const skill = z.union([z.enum(skills), z.templateLiteral([z.enum(['machine', 'grinder']), ':', z.uuid()])]);
const signOff = z
  .strictObject({
    skill,
    on: day,
    until: day.nullable(),
    /** The head who did it; null: not noted. */
    by: entityId.nullable().default(null),
  })
  .refine(({ on, until }) => until === null || until >= on, { path: ['until'], error: sentences.lapsesBefore });

/** A person of the house, as a head or the office keeps them. */
export const personSheetSchema = z
  .strictObject({ name, role: z.enum(roles), signOffs: z.array(signOff).max(MOST_SIGN_OFFS).default([]) })
  .meta({ id: 'PersonSheet' });
/** A person of the house, as a head or the office keeps them. */
export type PersonSheet = z.infer<typeof personSheetSchema>;

/** How people of the house get in: whether they have a PIN, and until when a code would do. */
export const accessSchema = z
  .object({
    people: z.array(z.object({ id: entityId, hasPin: z.boolean(), codeUntil: instant.nullable() })),
  })
  .meta({ id: 'Access' });
/** A code to hand out, once. */
export const handedCodeSchema = z.object({ code: z.string(), until: instant }).meta({ id: 'HandedCode' });

/** A person's first PIN, by the code that they were given. */
export const firstPinSchema = z.strictObject({ personId: entityId, code: oneTimeCode, pin }).meta({ id: 'FirstPin' });
/** Another PIN of one's own. */
export const newPinSchema = z.strictObject({ pin, newPin: pin }).meta({ id: 'NewPin' });

/** A second person's yes, for what the first writes in the next minutes. */
export const giveYesSchema = z.strictObject({ personId: entityId, pin }).meta({ id: 'GiveYes' });
/** A yes that was given: entries carry its id. */
export const yesSchema = z.object({ id: entityId, until: instant }).meta({ id: 'Yes' });

/** Sessions of one's own, the newest first. */
export const ownSessionsSchema = z
  .object({
    sessions: z.array(z.object({ id: z.string(), since: instant, seen: instant, here: z.boolean() })),
  })
  .meta({ id: 'OwnSessions' });

const MIN_PASSWORD = 12;
const MAX_PASSWORD = 200;
const password = z
  .string()
  .min(MIN_PASSWORD, { error: sentences.shortPassword(MIN_PASSWORD) })
  .max(MAX_PASSWORD);
/** One's own PIN once more, or from elsewhere the password or a passkey. */
export const proofSchema = z
  .union([z.strictObject({ pin }), z.strictObject({ password }), z.strictObject({ passkey: usedPasskeySchema })])
  .meta({ id: 'Proof' });

/** A long password of one's own, for where no tablet is enrolled. */
export const newPasswordSchema = z.strictObject({ pin, password }).meta({ id: 'NewPassword' });
/** A head or the office from elsewhere. */
export const signInAwaySchema = z
  .strictObject({ name, password: z.string().min(1).max(MAX_PASSWORD) })
  .meta({ id: 'SignInAway' });

/** What a tablet is called: "bar left". */
export const newDeviceSchema = z.strictObject({ name }).meta({ id: 'NewDevice' });
/** The code by which a tablet enrols itself. */
export const deviceCodeSchema = z.strictObject({ code: oneTimeCode }).meta({ id: 'DeviceCode' });
/** The tablets of a house. */
export const devicesSchema = z
  .object({
    devices: z.array(
      z.object({
        id: entityId,
        name: z.string(),
        enrolledAt: instant,
        by: z.string(),
        /** A code was handed out and not used yet. */
        waits: z.boolean(),
        here: z.boolean(),
      }),
    ),
  })
  .meta({ id: 'Devices' });
/** The tablets of a house. */
export type Devices = z.infer<typeof devicesSchema>;

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
    /** Names are for tablets of the house, as soon as it has enrolled one. */
    sites: z.array(site.extend({ people: z.array(person.extend({ hasPin: z.boolean() })), enrolled: z.boolean() })),
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
  .strictObject({
    id: entityId,
    /** What the server printed when it was started: whoever reads it there may set it up. */
    code: z.string().trim().min(1, { error: sentences.setUpCodeMissing }),
    cafe: cafeSheetSchema,
    head: z.strictObject({ id: entityId, name, pin }),
  })
  .meta({ id: 'NewCafe' });
/** A café that begins, with its head barista. */
export type NewCafe = z.infer<typeof newCafeSchema>;

/** Who is signed in, where, and in which units they read. */
export const sessionSchema = z
  .object({
    person,
    site,
    units: unitsSchema,
    /** When this person last gave their PIN or password here; absent in what an earlier version of the page remembered. */
    provenAt: instant.optional(),
  })
  .meta({ id: 'Session' });
/** Who is signed in, where, and in which units they read. */
export type Session = z.infer<typeof sessionSchema>;
