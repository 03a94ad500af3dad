import { happenings } from '@tempera/core/facts';
import { z } from 'zod';
import { entityId, factId } from './common.ts';

/** As far back as one chart looks. */
export const MOST_HISTORY_DAYS = 92;

/** As far back as days are told of. */
export const MOST_SUMMARY_DAYS = 731;

/** Which grinder, and how many business days back, today among them. */
export const historyQuerySchema = z.strictObject({
  grinderId: entityId,
  days: z.coerce.number().int().min(1).max(MOST_HISTORY_DAYS).default(7),
});

const hands = z.object({ personId: entityId, offLn: z.number(), sdLn: z.number(), shots: z.int() });

/**
 * A grinder over time. Whose shot it was is told to themselves and to a head only: it is to be learned from, and is no table of who
 * is better.
 */
export const grinderHistorySchema = z
  .object({
    /** The first day that is told by the shot, where more were poured before it than anybody could tell apart; null: all are told. */
    cutAt: z.string().nullable(),
    shots: z.array(
      z.object({
        factId,
        atMs: z.number(),
        day: z.string(),
        timeS: z.number(),
        lowS: z.number(),
        highS: z.number(),
        inside: z.boolean(),
        setting: z.number(),
        personId: entityId.nullable(),
        groupId: entityId.nullable(),
        service: z.boolean(),
      }),
    ),
    marks: z.array(
      z.object({
        atMs: z.number(),
        what: z.enum(['move', 'bag', ...happenings]),
        from: z.number().nullable(),
        to: z.number().nullable(),
      }),
    ),
    /** Doses on the scale, g. */
    doses: z.array(
      z.object({
        factId,
        atMs: z.number(),
        day: z.string(),
        doseG: z.number(),
        aimG: z.number(),
        toleranceG: z.number(),
        inside: z.boolean(),
      }),
    ),
    /** Of the shots timed in service. */
    capability: z.object({ inside: z.int(), of: z.int() }),
    /** Sds of ln T from stretch to stretch, between hands, and from shot to shot; null of too few shots. */
    split: z
      .object({ stretchSd: z.number(), handsSd: z.number(), shotSd: z.number(), hands: z.array(hands) })
      .nullable(),
  })
  .meta({ id: 'GrinderHistory' });
/** A grinder over time, as one person may see it. */
export type GrinderHistory = z.infer<typeof grinderHistorySchema>;

/** The same of whole days, for longer stretches. */
export const summariesQuerySchema = historyQuerySchema.extend({
  days: z.coerce.number().int().min(1).max(MOST_SUMMARY_DAYS).default(MOST_SUMMARY_DAYS),
});

/** Days of a grinder in numbers, oldest first; a day without any of it is left out. Held equal to core's `DaySummary`. */
export const summariesSchema = z
  .object({
    days: z.array(
      z.object({
        day: z.string(),
        shots: z.int(),
        timed: z.int(),
        inside: z.int(),
        meanLn: z.number().nullable(),
        sdLn: z.number().nullable(),
        windowS: z.object({ min: z.number(), max: z.number() }).nullable(),
        moves: z.int(),
        bags: z.int(),
        doses: z.int(),
        dosesInside: z.int(),
        doseOffG: z.number().nullable(),
      }),
    ),
  })
  .meta({ id: 'DaySummaries' });
/** A business day of a grinder in numbers. */
export type DayTold = z.infer<typeof summariesSchema>['days'][number];

/** How many business days back, today among them. */
export const morningsQuerySchema = z.strictObject({
  days: z.coerce.number().int().min(1).max(MOST_HISTORY_DAYS).default(42),
});

/** Openings that were signed for, oldest first. */
export const morningsSchema = z
  .object({
    mornings: z.array(z.object({ day: z.string(), fromMs: z.number(), readyMs: z.number(), opensMs: z.number() })),
  })
  .meta({ id: 'Mornings' });
/** One opening from its plan to its signature. */
export type MorningTold = z.infer<typeof morningsSchema>['mornings'][number];
