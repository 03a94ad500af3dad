import {
  doseWays,
  entryKinds,
  fills,
  flaws,
  sightings,
  yieldWays,
  type AnyFact,
  type FactBodies,
  type FactKind,
  type FactOf,
  type StepFact,
} from '@tempera/core/facts';
import { z } from 'zod';
import { calendarDay, entityId, factId, instant, readAs, setting } from './common.ts';
import { quantity } from './field.ts';
import { sentences } from './sentences.ts';
import { stepBody } from './step.ts';

const measuredBy = z.enum(['scale', 'hand']);
const flaw = z.enum(flaws).nullable();
/** Three minutes at 10 Hz, and the drip. */
const MAX_TRACE_SAMPLES = 2_000;
const MAX_HZ = 100;
const MAX_COUNT = 10_000;
const MOST_GLASS_ML = 1_000;
const MOST_RECIPES = 10;
const MAX_SHOTS_OF_A_LOCK = 200;
const sample = z.number().min(-5_000).max(5_000).nullable();

const shotBody = z
  .strictObject({
    recipeVersionId: entityId,
    setting,
    doseG: quantity('doseG'),
    yieldG: quantity('yieldG'),
    timeS: quantity('timeS'),
    firstDropS: quantity('firstDropS').nullable(),
    flaw,
    measuredBy,
    trace: z
      .strictObject({
        hz: z.number().min(1).max(MAX_HZ),
        massG: z.array(sample).max(MAX_TRACE_SAMPLES, { error: sentences.traceTooLong }),
      })
      .nullable(),
    partial: z.boolean().optional(),
    check: z.boolean().optional(),
    service: z.boolean().optional(),
    volumeCount: z.int().min(0).max(MAX_COUNT).optional(),
    measured: z.strictObject({ dose: z.enum(doseWays).optional(), yield: z.enum(yieldWays).optional() }).optional(),
    glassMl: z.number().min(1).max(MOST_GLASS_ML).optional(),
  })
  .refine((shot) => shot.firstDropS === null || shot.firstDropS <= shot.timeS, {
    path: ['firstDropS'],
    error: sentences.firstDropAfterEnd,
  });

const doseBody = z.strictObject({
  setting,
  doseG: quantity('doseG'),
  grindTimeS: quantity('grindTimeS').nullable(),
  measuredBy,
  way: z.enum(doseWays).optional(),
  fill: z.enum(fills).optional(),
  firstPartG: quantity('doseG').optional(),
  quantityDial: setting.optional(),
});

const collarMoveBody = z.strictObject({
  from: setting,
  to: setting,
  advisedTo: setting.nullable(),
  service: z.boolean().optional(),
});

const purgeBody = z.strictObject({
  purgeG: quantity('purgeG'),
  into: z.enum(['chamber', 'kitchen']).optional(),
  why: z.enum(['burrs', 'stale']).optional(),
  counted: z
    .strictObject({ by: z.enum(['seconds', 'portafilters', 'doses']), n: z.number().min(0).max(100) })
    .optional(),
});

const lockBody = z.strictObject({
  recipeVersionId: entityId,
  setting,
  doseTimeS: quantity('grindTimeS').nullable(),
  doseG: quantity('doseG').optional(),
  otherDoses: z
    .array(z.strictObject({ recipeVersionId: entityId, doseTimeS: quantity('grindTimeS') }))
    .max(MOST_RECIPES)
    .optional(),
  chance: z.number().min(0).max(1),
  expected: z
    .strictObject({ timeS: z.number().positive(), lowS: z.number().positive(), highS: z.number().positive() })
    .refine(({ timeS, lowS, highS }) => lowS <= timeS && timeS <= highS, { error: sentences.bandBackwards }),
  nextCheckMin: z.number().min(0).max(1_440),
  shotIds: z.array(factId).min(1).max(MAX_SHOTS_OF_A_LOCK),
});

const newBagBody = z.strictObject({
  roastedOn: calendarDay(sentences.badDate).nullable(),
  bagId: entityId.optional(),
  coffeeId: entityId.optional(),
  otherCoffee: z.boolean().optional(),
});

const seenBody = z.strictObject({ setting, sign: z.enum(sightings), recipeVersionId: entityId.optional() });

const correctionBody = z
  .strictObject({
    factId,
    withdrawn: z.boolean(),
    shot: z
      .strictObject({
        doseG: quantity('doseG').optional(),
        yieldG: quantity('yieldG').optional(),
        timeS: quantity('timeS').optional(),
        firstDropS: quantity('firstDropS').nullable().optional(),
        flaw: flaw.optional(),
      })
      .nullable(),
  })
  .refine((body) => body.withdrawn || (body.shot !== null && Object.keys(body.shot).length > 0), {
    error: sentences.correctsNothing,
  });

/** How far a device's clock may be ahead or behind: one that lost its battery stands in 1970. */
const MOST_SKEW_MS = 10_000_000_000_000;

/** What every entry carries beside its kind and body, as the device that saw it sends it. */
const sent = {
  id: factId,
  siteId: entityId,
  /** When it happened, by the device's own clock. */
  at: instant,
  /** How far that clock was measured to be ahead of the server's; null where it never was. */
  skewMs: z.number().min(-MOST_SKEW_MS).max(MOST_SKEW_MS).nullable(),
  /** Who did it: the server takes it under that person's session only. */
  personId: entityId,
  /** A second person's yes, where the author may not write it alone. */
  yesId: entityId.optional(),
};
const envelope = {
  ...sent,
  grinderId: entityId,
  groupId: entityId.nullable(),
};

const kindSchema = <K extends FactKind, B extends z.ZodType>(kind: K, body: B) =>
  z.strictObject({ ...envelope, kind: z.literal(kind), body });

/** A fact as the device that saw it sends it. */
export const newFactSchema = z
  .discriminatedUnion('kind', [
    z.strictObject({ ...envelope, groupId: entityId, kind: z.literal('shot'), body: shotBody }),
    kindSchema('dose', doseBody),
    kindSchema('collarMove', collarMoveBody),
    kindSchema('purge', purgeBody),
    kindSchema('lock', lockBody),
    kindSchema('newBag', newBagBody),
    kindSchema('seen', seenBody),
    kindSchema('correction', correctionBody),
  ])
  .meta({ id: 'NewFact' });

/** A step of the bar itself, as the device that saw it sends it. */
export const newStepSchema = z
  .strictObject({
    ...sent,
    kind: z.literal('step'),
    grinderId: z.null(),
    groupId: z.null(),
    body: stepBody,
  })
  .meta({ id: 'NewStep' });

/** Anything that a device writes down, judged by the schema of its kind: a refusal is about its own fields. */
export const newEntrySchema = readAs<NewEntry>(z.discriminatedUnion('kind', [newFactSchema, newStepSchema]));

interface Sent {
  siteId: string;
  skewMs: number | null;
  yesId?: string | undefined;
}
/** A step as the device that saw it sends it. */
export type NewStep = StepFact & Sent;

/** A fact of a grinder as the device that saw it sends it. */
export type NewFact = AnyFact & Sent;
/** Anything that a device writes down. */
export type NewEntry = NewFact | NewStep;
/** A fact of one kind as it is sent. */
export type NewFactOf<K extends FactKind> = FactOf<K> & Sent;

/** A fact as the house keeps it: who, when it arrived, and its place in the order of arrival. */
export type RecordedFact = NewFact & Recorded;
/** A step as the house keeps it. */
export type RecordedStep = NewStep & Recorded;
/** Anything that the house has kept. */
export type RecordedEntry = RecordedFact | RecordedStep;

/**
 * What the house adds when it keeps an entry. `at` is then by the house's clock and never after `receivedAt`; what the
 * device said stands beside it. Entries from before clocks were measured have `deviceAt` as they were sent.
 */
interface Recorded {
  seq: number;
  receivedAt: string;
  deviceAt: string;
  /** What was wrong with the device's clock: it was ahead of the arrival, or stood before the café's first day. */
  clock: 'ahead' | 'early' | null;
  /** Who said yes to it, where its author may not write it alone. */
  approvedBy: string | null;
}

const recorded = {
  seq: z.int(),
  receivedAt: z.string(),
  deviceAt: z.string(),
  clock: z.enum(['ahead', 'early']).nullable(),
  approvedBy: entityId.nullable(),
};

/** The wire form of a kept fact. Its body was validated when it was written. */
export const recordedFactSchema = z
  .object({
    ...envelope,
    ...recorded,
    grinderId: entityId.nullable(),
    kind: z.enum(entryKinds),
    body: z.record(z.string(), z.unknown()),
  })
  .meta({ id: 'RecordedFact' });

/** A page of the journal has at most so many entries. */
export const MAX_JOURNAL_PAGE = 200;

/** What a page of the journal can be asked for. */
export const journalQuerySchema = z.strictObject({
  grinderId: entityId.optional(),
  groupId: entityId.optional(),
  personId: entityId.optional(),
  kind: z.enum(entryKinds).optional(),
  /** Newest first, older than this place in the order of arrival. */
  beforeSeq: z.coerce.number().int().positive().optional(),
  limit: z.coerce.number().int().min(1).max(MAX_JOURNAL_PAGE).default(50),
});

/** What a page of the journal is asked for, with what was left out filled in. */
export type JournalQuery = z.infer<typeof journalQuerySchema>;

/** A page of the journal, newest first. */
export interface JournalPage {
  facts: RecordedEntry[];
  /** Facts outside the page that its own corrections point at, and corrections of its facts. */
  related: RecordedEntry[];
  /** Entries of the page that a tablet told by name alone, and whose authors have not given their PIN yet; absent: none. */
  unconfirmed?: string[] | undefined;
  nextBeforeSeq: number | null;
}

/** The wire form of a page of the journal. */
export const journalPageSchema = readAs<JournalPage>(
  z.object({
    facts: z.array(recordedFactSchema),
    related: z.array(recordedFactSchema),
    unconfirmed: z.array(entityId).optional(),
    nextBeforeSeq: z.int().nullable(),
  }),
);

/** One entry with its trace, and what belongs to it. */
export interface JournalEntry {
  fact: RecordedEntry;
  /** What it corrects, what corrects it, and the shots that a lock names. */
  related: RecordedEntry[];
  /** The tablet that told it by name alone, while its author has not given their PIN; absent: they have, or it was told under it. */
  unconfirmedFrom?: string | undefined;
  /** What a shot or a lock aimed at, by the recipe's version as it is written, on the pump's clock. */
  gate: { recipe: string; version: number; doseG: number; yieldG: number; timeMinS: number; timeMaxS: number } | null;
}

/** The wire form of an entry by itself. */
export const journalEntrySchema = readAs<JournalEntry>(
  z.object({
    fact: recordedFactSchema,
    related: z.array(recordedFactSchema),
    unconfirmedFrom: z.string().optional(),
    gate: z
      .object({
        recipe: z.string(),
        version: z.int(),
        doseG: z.number(),
        yieldG: z.number(),
        timeMinS: z.number(),
        timeMaxS: z.number(),
      })
      .nullable(),
  }),
);

/** Compile-time proof that what zod lets in is what the core reads. */
type Same<A, B> = [A] extends [B] ? ([B] extends [A] ? true : never) : never;
type Wire<K extends FactKind> = Extract<z.infer<typeof newFactSchema>, { kind: K }>['body'];
type Loose<T> = { [P in keyof T]: T[P] | undefined };
export const wireMatchesCore: {
  [K in Exclude<FactKind, 'correction'>]: Same<Wire<K>, FactBodies[K]>;
} & {
  correction: Same<
    Loose<NonNullable<Wire<'correction'>['shot']>>,
    Loose<NonNullable<FactBodies['correction']['shot']>>
  >;
} = {
  shot: true,
  dose: true,
  collarMove: true,
  purge: true,
  lock: true,
  newBag: true,
  seen: true,
  correction: true,
};
