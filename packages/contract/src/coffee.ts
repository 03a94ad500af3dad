import { usualOpenLimits } from '@tempera/core/coffee';
import { roasts } from '@tempera/core/taste';
import { z } from 'zod';
import { entityId, instant } from './common.ts';
import { day, name, note, numberWithin } from './field.ts';
import { sentences } from './sentences.ts';
import { keptOf, listQuery } from './sheet.ts';

const LONGEST_WINDOW_DAYS = 400;

const LONGEST_OPEN_H = 1_000;

const MOST_RECIPES = 5;

/** A coffee: its recipes, the days of its freshness, its price. */
export const coffeeSheetSchema = z
  .strictObject({
    name,
    kind: z.enum(['blend', 'single']),
    decaf: z.boolean(),
    /** How dark it was roasted: it shifts what a cup of it is expected to taste of. */
    roast: z.enum(roasts).default('medium'),
    roasterWords: note,
    restDays: numberWithin('rest', 0, LONGEST_WINDOW_DAYS, 'days'),
    primeDays: numberWithin('prime', 1, LONGEST_WINDOW_DAYS, 'days'),
    fadeDays: numberWithin('fading', 1, LONGEST_WINDOW_DAYS, 'days'),
    /** How long it keeps in an open bag or a hopper. */
    openBestH: numberWithin('open hours', 1, LONGEST_OPEN_H, 'h').default(usualOpenLimits.openBestH),
    openStaleH: numberWithin('open hours', 1, LONGEST_OPEN_H, 'h').default(usualOpenLimits.openStaleH),
    pricePerKg: numberWithin('price', 0, 10_000, 'a kg').nullable(),
    recipeId: entityId.nullable(),
    /** Other recipes on the same collar: a single beside the double. */
    moreRecipes: z
      .array(z.strictObject({ recipeId: entityId }))
      .max(MOST_RECIPES)
      .default([]),
  })
  .refine(({ openBestH, openStaleH }) => openBestH < openStaleH, { path: ['openStaleH'], error: sentences.openOrder })
  .refine(({ restDays, primeDays }) => restDays < primeDays, { path: ['primeDays'], error: sentences.windowOrder })
  .refine(({ primeDays, fadeDays }) => primeDays < fadeDays, { path: ['fadeDays'], error: sentences.windowOrder });
/** A coffee as it is kept. */
export type CoffeeSheet = z.infer<typeof coffeeSheetSchema>;

const MOST_FREEZES = 6;
const freeze = z
  .strictObject({ on: day, until: day.nullable() })
  .refine(({ on, until }) => until === null || until >= on, { path: ['until'], error: sentences.thawedBefore });

/** A bag: its coffee, grams, and the days it was roasted, frozen, thawed and opened. */
export const bagSheetSchema = z
  .strictObject({
    coffeeId: entityId,
    roastedOn: day,
    weightG: numberWithin('bag', 50, 60_000, 'g'),
    freezes: z.array(freeze).max(MOST_FREEZES),
    /** Opened by hand, for something else than a hopper. */
    openedOn: day.nullable(),
    /** Used up, or given away. */
    finishedOn: day.nullable(),
    /** The bag that it was split off from; null: it came so. */
    portionOf: entityId.nullable().default(null),
    label: note,
  })
  .refine(({ roastedOn, freezes }) => freezes.every(({ on }) => on >= roastedOn), {
    path: ['freezes'],
    error: sentences.frozenBeforeRoast,
  })
  .refine(({ roastedOn, openedOn }) => openedOn === null || openedOn >= roastedOn, {
    path: ['openedOn'],
    error: sentences.openedBeforeRoast,
  });
/** A bag as it is kept. */
export type BagSheet = z.infer<typeof bagSheetSchema>;

/** Where a bag is in its life. */
export const bagStates = ['closed', 'open', 'hopper', 'used'] as const;

/** A bag, and what its facts tell of it. */
export const bagSchema = z
  .object({
    ...keptOf(bagSheetSchema).shape,
    coffee: z.string(),
    state: z.enum(bagStates),
    /** When it first went into a hopper, or was opened by hand. */
    openedAt: instant.nullable(),
    /** The hopper it is in, or was last in. */
    grinderId: entityId.nullable(),
  })
  .meta({ id: 'Bag' });
/** A bag with where it is in its life. */
export type Bag = z.infer<typeof bagSchema>;

/** The wire form of a coffee. */
export const coffeeSchema = keptOf(coffeeSheetSchema).meta({ id: 'Coffee' });
/** A coffee with its revision. */
export type Coffee = z.infer<typeof coffeeSchema>;

/** Coffees in use, and the bags of them that are not used up. */
export const stockSchema = z.object({ coffees: z.array(coffeeSchema), bags: z.array(bagSchema) }).meta({ id: 'Stock' });
/** Coffees, and the bags that are not used up. */
export type Stock = z.infer<typeof stockSchema>;

/** What a page of bags can be asked for. */
export const bagsQuerySchema = listQuery(['roastedOn', 'coffee', 'weightG', 'openedAt']).extend({
  state: z.enum(bagStates).optional(),
  coffeeId: entityId.optional(),
});
/** What a page of bags is asked for, with what was left out filled in. */
export type BagsQuery = z.infer<typeof bagsQuerySchema>;

/** What calibrating took and what was served, by business day and grinder, newest day first. */
export const coffeeUseSchema = z
  .object({
    currency: z.string(),
    days: z.array(
      z.object({
        day: z.string(),
        grinderId: entityId,
        calibrationG: z.number(),
        servedG: z.number().nullable(),
        /** What the calibration's grams cost; null where no price is set. */
        calibrationCost: z.number().nullable(),
      }),
    ),
    /** What should be left in each hopper by now: its bag or its last weighed tub, less the pace since. */
    hoppers: z.array(
      z.object({ grinderId: entityId, leftG: z.number(), weighedAt: instant.nullable(), paceGPerDay: z.number() }),
    ),
    /** Grams of each coffee used on each of the last working days, for the run-out. */
    daily: z.array(z.object({ coffeeId: entityId, grams: z.array(z.number()) })),
  })
  .meta({ id: 'CoffeeUse' });
/** What calibrating took against what was served, by day and grinder, g. */
export type CoffeeUse = z.infer<typeof coffeeUseSchema>;
