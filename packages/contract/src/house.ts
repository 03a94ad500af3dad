import { timeStarts, weekdays } from '@tempera/core/house';
import { z } from 'zod';
import { entityId, instant } from './common.ts';
import { countWithin, day, name, note, numberWithin, quantity, reason } from './field.ts';
import { sentences } from './sentences.ts';
import { listQuery } from './sheet.ts';

const MOST_STEPS = 20;
const LONGEST_STEP = 160;

/** A stretch of a tasting axis, 0 to 10. */
const stretch = z
  .strictObject({ low: numberWithin('taste', 0, 10, ''), high: numberWithin('taste', 0, 10, '') })
  .refine(({ low, high }) => low < high, { path: ['high'], error: sentences.minOverMax });

const roasterStart = z.strictObject({
  doseG: quantity('doseG'),
  yieldG: quantity('yieldG'),
  timeS: quantity('timeS'),
  tempC: quantity('tempC').nullable(),
  words: note,
});
/** The numbers that the roaster sent along, kept beside the house’s own. */
export type RoasterStart = z.infer<typeof roasterStart>;

const recipeFields = {
  name,
  doseG: quantity('doseG'),
  doseToleranceG: quantity('doseToleranceG'),
  /** Whether more than the dose is too much, whatever the tolerance says of less. */
  doseNoMore: z.boolean().default(false),
  yieldG: quantity('yieldG'),
  yieldToleranceG: quantity('yieldToleranceG'),
  timeFrom: z.enum(timeStarts),
  timeMinS: quantity('timeS'),
  timeMaxS: quantity('timeS'),
  firstDropMinS: quantity('firstDropS'),
  firstDropMaxS: quantity('firstDropS'),
  soakS: numberWithin('soak', 0, 120, 's'),
  pauseS: numberWithin('pause', 0, 60, 's'),
  pressureBar: quantity('pressureBar').nullable(),
  /** How the pressure runs, in the house's words: "soak, then rising from the first drop". */
  pressureShape: note.default(''),
  tempC: quantity('tempC').nullable(),
  /** The push of a tamp that is weighed, grams; null: by feel. */
  tampG: numberWithin('tamp', 50, 30_000, 'g').nullable().default(null),
  basketId: entityId.nullable(),
  taste: z.strictObject({ sourBitter: stretch, weakStrong: stretch }).nullable(),
  prepSteps: z
    .array(z.string().trim().min(1, { error: sentences.emptyStep }).max(LONGEST_STEP, { error: sentences.stepTooLong }))
    .max(MOST_STEPS, { error: sentences.tooManySteps }),
  roaster: roasterStart.nullable(),
  retired: z.boolean(),
};

/** A recipe as somebody writes it. */
export const recipeSchema = z
  .strictObject(recipeFields)
  .refine(({ timeMinS, timeMaxS }) => timeMinS < timeMaxS, { path: ['timeMaxS'], error: sentences.windowBackwards })
  .refine(({ firstDropMinS, firstDropMaxS }) => firstDropMinS < firstDropMaxS, {
    path: ['firstDropMaxS'],
    error: sentences.windowBackwards,
  })
  .refine(({ timeFrom, soakS, pauseS }) => timeFrom !== 'soakEnd' || soakS + pauseS > 0, {
    path: ['soakS'],
    error: sentences.noSoak,
  })
  .refine(({ timeFrom, firstDropMaxS, timeMinS }) => timeFrom !== 'pump' || firstDropMaxS < timeMinS, {
    path: ['firstDropMaxS'],
    error: sentences.dropAfterWindow,
  });
/** What a recipe asks for: g, s, °C, bar. */
export type Recipe = z.infer<typeof recipeSchema>;

/** A new version of a recipe, written by somebody who has seen version `basedOn`; 0 for a new recipe. */
export const recipeChangeSchema = z
  .strictObject({ id: entityId, basedOn: z.int().nonnegative(), reason, validFrom: day, recipe: recipeSchema })
  .meta({ id: 'RecipeChange' });
/** The next version of a recipe, with its reason and the day it holds from. */
export type RecipeChange = z.infer<typeof recipeChangeSchema>;

/** One version of a house recipe; a shot names the version it was judged by. */
export const recipeVersionSchema = z
  .object({
    ...recipeFields,
    id: entityId,
    recipeId: entityId,
    version: z.int().positive(),
    reason: z.string().nullable(),
    validFrom: z.string(),
    approvedBy: z.string().nullable(),
    writtenAt: instant,
  })
  .meta({ id: 'RecipeVersion' });
/** One version of a recipe as it is kept. */
export type RecipeVersion = z.infer<typeof recipeVersionSchema>;

/** Every version of one recipe, newest first, and the one in force today. */
export const recipeHistorySchema = z
  .object({ versions: z.array(recipeVersionSchema), inForce: z.int() })
  .meta({ id: 'RecipeHistory' });
/** Every version of a recipe, newest first, and which one is in force. */
export type RecipeHistory = z.infer<typeof recipeHistorySchema>;

/** What a page of recipes can be asked for. */
export const recipesQuerySchema = listQuery(['name', 'doseG', 'yieldG', 'writtenAt']).extend({
  retired: z.stringbool().default(false),
});
/** What a page of recipes is asked for, with what was left out filled in. */
export type RecipesQuery = z.infer<typeof recipesQuerySchema>;

/** A drink as a cut of a recipe: shares and baskets, ml of milk and water, °C, mm of foam. */
export const drinkSheetSchema = z.strictObject({
  name,
  recipeId: entityId,
  share: numberWithin('share of the yield', 0.2, 4, ''),
  baskets: numberWithin('number of baskets', 0.5, 4, ''),
  milkMl: numberWithin('milk', 0, 600, 'ml'),
  foamMm: numberWithin('foam', 0, 60, 'mm'),
  milkTempC: quantity('milkTempC'),
  waterMl: numberWithin('water', 0, 600, 'ml'),
  waterFirst: z.boolean(),
  /** Of a hundred orders. */
  orders: numberWithin('share of orders', 0, 100, 'of 100'),
  position: countWithin('place on the card', 0, 1_000),
});
/** A drink as it is kept. */
export type DrinkSheet = z.infer<typeof drinkSheetSchema>;

const found = {
  on: z.object({ kind: z.enum(['recipe', 'coffee', 'grinder']), id: entityId }),
  name: z.string(),
};

/** What does not go together in the house. */
export const findingsSchema = z
  .object({
    findings: z.array(
      z.union([
        z.object({
          ...found,
          kind: z.enum(['doseOverBasket', 'doseUnderBasket']),
          doseG: z.number(),
          minG: z.number(),
          maxG: z.number(),
        }),
        z.object({ ...found, kind: z.literal('boils'), tempC: z.number(), boilsAtC: z.number() }),
        z.object({
          ...found,
          kind: z.enum(['noBasket', 'basketGone', 'noRecipe', 'recipeGone', 'noCoffee', 'sameName']),
        }),
      ]),
    ),
  })
  .meta({ id: 'Findings' });

const clock = (what: string) => countWithin(what, 0, 1_439);
const hours = { closed: z.boolean(), opensMin: clock('opening time'), closesMin: clock('closing time') };
const MOST_SHIFTS = 60;
const MOST_EXCEPTIONS = 120;

/** The café itself. */
export const cafeSheetSchema = z.strictObject({
  name,
  timeZone: z.string().refine(isTimeZone, { error: sentences.badTimeZone }),
  dayStartsMin: countWithin('start of the business day', 0, 1_439),
  opensMin: countWithin('opening time', 0, 1_439),
  closesMin: countWithin('closing time', 0, 1_439),
  /** Weekdays that differ from the usual hours. */
  week: z
    .array(z.strictObject({ weekday: z.enum(weekdays), ...hours }))
    .max(weekdays.length)
    .default([]),
  /** Holidays, and days of other hours. */
  exceptions: z
    .array(
      z
        .strictObject({ from: day, until: day.nullable(), ...hours, why: note })
        .refine(({ from, until }) => until === null || until >= from, {
          path: ['until'],
          error: sentences.endsBeforeItBegins,
        }),
    )
    .max(MOST_EXCEPTIONS)
    .default([]),
  /** Who is in from when to when, every week. */
  shifts: z
    .array(
      z.strictObject({
        name,
        weekday: z.enum(weekdays).nullable(),
        fromMin: clock('begin of the shift'),
        toMin: clock('end of the shift'),
        personId: entityId.nullable(),
      }),
    )
    .max(MOST_SHIFTS)
    .default([]),
  altitudeM: numberWithin('altitude', -400, 5_000, 'm'),
  currency: z.string().regex(/^[A-Z]{3}$/, { error: sentences.badCurrency }),
  /** The units of what hangs on the wall, and those that newcomers begin with. */
  unitSchool: z.enum(['metric', 'customary']).default('metric'),
});
/** The café itself as it is kept: its clock, height, hours and money. */
export type CafeSheet = z.infer<typeof cafeSheetSchema>;

function isTimeZone(text: string): boolean {
  try {
    return Boolean(new Intl.DateTimeFormat('en', { timeZone: text }));
  } catch {
    return false;
  }
}
