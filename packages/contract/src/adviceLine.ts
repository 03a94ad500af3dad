import {
  engineDefaults,
  lockRules,
  trimRules,
  usualPolicy,
  windowMiddleS,
  type Advice,
  type AdviceCase,
} from '@tempera/core/calibration';
import { doseWays, yieldWays } from '@tempera/core/facts';
import { shownTrimG, type Service, type ServiceAdvice } from '@tempera/core/day';
import { z } from 'zod';
import { plainWriter, reasonWord } from './adviceWords.ts';
import { serviceReasons } from './serviceWords.ts';
import { CHANCE_DIGITS, positive, QUANTITY_DIGITS, recipeLine, rounded } from './line.ts';

/**
 * One line of `npm run -s advise`, in and out. This is a stable contract: the engine behind it may change, this may not.
 */
const instant = z.iso.datetime({ offset: true });

/** More shots than anybody pulls at one grinder between two locks. */
const MOST_SHOTS = 2_000;

/** More than any bar pours through one grinder. */
const MOST_CUPS_PER_HOUR = 400;

/** A case: one grinder’s recipe, dial, memory and shots. */
export const adviceLineSchema = z.strictObject({
  recipe: recipeLine.extend({
    /** When the first drop should fall, seconds from pump start. */
    firstDropS: z
      .strictObject({ min: z.number().nonnegative(), max: positive })
      .refine(({ min, max }) => min < max, { error: 'the first drop needs min below max' })
      .optional(),
  }),
  /** The basket in the portafilter: what it takes, whether its wall is double, whether it is another than the recipe's. */
  basket: z
    .strictObject({
      minG: positive.optional(),
      maxG: positive.optional(),
      dualWalled: z.boolean().optional(),
      other: z.boolean().optional(),
    })
    .optional(),
  grinder: z.strictObject({
    stepMarks: positive,
    finer: z.enum(['down', 'up']),
    secondsPerMark: positive.nullable(),
    retentionG: z.number().nonnegative().nullable(),
    /** Where the dial ends: no advice turns beyond it. */
    range: z
      .strictObject({ min: z.number(), max: z.number() })
      .refine(({ min, max }) => min < max, { error: 'the range needs min below max' })
      .optional(),
  }),
  house: z
    .strictObject({
      sureness: z.number().gt(0).lt(1).optional(),
      risk: z.number().gt(0).lt(1).optional(),
      lockRule: z.enum(lockRules).optional(),
      trim: z.enum(trimRules).optional(),
      longestCheckMin: z.number().min(5).max(1_440).optional(),
    })
    .optional(),
  since: z
    .strictObject({
      newBag: z.boolean(),
      hours: z.number().nonnegative(),
      /** Where, at what normalised time and how surely it was remembered at the last hold. */
      setting: z.number().optional(),
      timeS: positive.optional(),
      sdS: positive.optional(),
    })
    .nullable(),
  /** Where the collar stands, if not where the last shot was pulled. */
  standsAt: z.number().optional(),
  now: instant.optional(),
  /** In service: the answer is for the rest of the day, `lock` means that the setting is left, and a dose beside `repeat` is a trim. */
  service: z.strictObject({ endsAt: instant, cupsPerHour: positive.max(MOST_CUPS_PER_HOUR) }).optional(),
  events: z
    .array(z.strictObject({ at: instant, kind: z.enum(['newBag', 'refill', 'cleaned', 'serviced']) }))
    .optional(),
  shots: z
    .array(
      z
        .strictObject({
          at: instant.optional(),
          setting: z.number(),
          doseG: positive,
          yieldG: z.number().nonnegative(),
          timeS: positive,
          firstDropS: z.number().nonnegative().nullish(),
          purgedG: z.number().nonnegative().nullish(),
          fault: z.enum(['channel', 'prep', 'choke']).nullish(),
          /** Which group it ran through. */
          group: z.string().min(1).max(60).nullish(),
          /** Who pulled it: hands differ. */
          by: z.string().min(1).max(60).nullish(),
          /** How dose and yield are known; left out: on the scale. */
          measured: z
            .strictObject({ dose: z.enum(doseWays).optional(), yield: z.enum(yieldWays).optional() })
            .optional(),
        })
        .refine((shot) => shot.yieldG > 0 || shot.fault === 'choke', {
          path: ['yieldG'],
          error: 'only a choked shot may have no yield',
        }),
    )
    .max(MOST_SHOTS),
});

/** A case that was read. */
export type AdviceLine = z.infer<typeof adviceLineSchema>;

/** What to do, where, how surely, and why. */
export const adviceAnswerSchema = z.strictObject({
  action: z.enum(['move', 'repeat', 'lock', 'dose']),
  setting: z.number(),
  purgeG: z.number(),
  doseG: z.number().optional(),
  predicted: z.strictObject({ timeS: z.number(), lowS: z.number(), highS: z.number(), inWindow: z.number() }),
  nextCheckMin: z.number(),
  /** Chance of the window where it stands, only where nothing in reach can do better. */
  closeEnough: z.number().optional(),
  reasons: z.array(z.string()),
});

/** An answer as it is written. */
export type AdviceAnswer = z.infer<typeof adviceAnswerSchema>;

/** The engine's case of a parsed line. In service the doses say which trim is weighed: a line has no other way to tell. */
export function caseOfLine(line: AdviceLine): AdviceCase {
  const given = caseAsGiven(line);
  return line.service ? { ...given, trimG: shownTrimG(given) } : given;
}

function caseAsGiven(line: AdviceLine): AdviceCase {
  return {
    recipe: recipeOf(line),
    dial: {
      stepMarks: line.grinder.stepMarks,
      finer: line.grinder.finer,
      range: line.grinder.range ?? null,
      ...(line.basket?.dualWalled ? { mostSteps: engineDefaults.dualWallMostSteps } : {}),
    },
    secondsPerMark: line.grinder.secondsPerMark,
    retentionG: line.grinder.retentionG,
    house: {
      sureness: line.house?.sureness ?? usualPolicy.sureness,
      risk: line.house?.risk ?? usualPolicy.risk,
      lockRule: line.house?.lockRule ?? usualPolicy.lockRule,
      trim: line.house?.trim ?? usualPolicy.trim,
      longestCheckMin: line.house?.longestCheckMin ?? usualPolicy.longestCheckMin,
    },
    since: line.since && { newBag: line.since.newBag, hours: line.since.hours },
    held: heldOf(line),
    remembered: null,
    trimG: 0,
    nowMs: line.now === undefined ? null : Date.parse(line.now),
    events: (line.events ?? []).map((event) => ({ atMs: Date.parse(event.at), kind: event.kind })),
    shots: line.shots.map((shot) => ({
      atMs: shot.at === undefined ? null : Date.parse(shot.at),
      setting: shot.setting,
      doseG: shot.doseG,
      yieldG: shot.yieldG,
      timeS: shot.timeS,
      firstDropS: shot.firstDropS ?? null,
      purgedG: shot.purgedG ?? null,
      fault: shot.fault ?? null,
      group: shot.group ?? null,
      by: shot.by ?? null,
      ...(shot.measured ? { measured: shot.measured } : {}),
    })),
    standsAt: standsAt(line),
    purgedG: 0,
    besides: line.basket?.other ? ['otherBasket'] : [],
  };
}

function recipeOf({ recipe, basket }: AdviceLine): AdviceCase['recipe'] {
  const { doseG, yieldG, timeS, doseToleranceG, firstDropS } = recipe;
  const takes = basket?.minG !== undefined || basket?.maxG !== undefined;
  return {
    doseG,
    yieldG,
    timeS,
    doseToleranceG: doseToleranceG ?? null,
    ...(firstDropS ? { firstDropS } : {}),
    ...(takes ? { basketG: { min: basket.minG ?? 0, max: basket.maxG ?? Infinity } } : {}),
  };
}

/** Where the collar stands: as told, else where the last shot was pulled (null), else where it last held, else anywhere on the dial. */
function standsAt({ standsAt: told, shots, since, grinder: { range } }: AdviceLine): number | null {
  if (told !== undefined) return told;
  if (shots.length > 0) return null;
  return since?.setting ?? range?.min ?? null;
}

/** What is remembered of the last hold; null where the line says neither where nor at what time. */
function heldOf(line: AdviceLine): AdviceCase['held'] {
  const { since, shots, recipe } = line;
  if (!since || (since.setting === undefined && since.timeS === undefined)) return null;
  const timeS = since.timeS ?? windowMiddleS(recipe.timeS);
  const setting = since.setting ?? shots[0]?.setting ?? standsAt(line) ?? 0;
  return { setting, timeS, ...(since.sdS === undefined ? {} : { sd: since.sdS / timeS }) };
}

/** What the line says of the rest of the day; null: it asks for the bench's advice. */
export const serviceOfLine = ({ service }: AdviceLine): Service | null =>
  service ? { endsAtMs: Date.parse(service.endsAt), cupsPerHour: service.cupsPerHour } : null;

const predictedOf = ({ timeS, lowS, highS, inWindow }: Advice['predicted']): AdviceAnswer['predicted'] => ({
  timeS: rounded(timeS, QUANTITY_DIGITS),
  lowS: rounded(lowS, QUANTITY_DIGITS),
  highS: rounded(highS, QUANTITY_DIGITS),
  inWindow: rounded(inWindow, CHANCE_DIGITS),
});

/** The answer line of what to do in service. */
export function answerOfService(served: ServiceAdvice): AdviceAnswer {
  const { action, asksToLook, setting, purgeG, doseG, predicted, nextCheckMin } = served;
  const left = asksToLook ? 'repeat' : 'lock';
  return {
    action: action === 'leave' ? left : action,
    setting,
    purgeG,
    ...(doseG === null ? {} : { doseG }),
    predicted: predictedOf(predicted),
    nextCheckMin,
    reasons: serviceReasons(served, plainWriter),
  };
}

/** The answer line of an advice. */
export function answerOfAdvice(advice: Advice): AdviceAnswer {
  return {
    action: advice.action,
    setting: advice.setting,
    purgeG: advice.purgeG,
    ...(advice.doseG === null ? {} : { doseG: advice.doseG }),
    predicted: predictedOf(advice.predicted),
    nextCheckMin: advice.nextCheckMin,
    ...(advice.closeEnough === null ? {} : { closeEnough: rounded(advice.closeEnough, CHANCE_DIGITS) }),
    reasons: advice.reasons.map((reason) => reasonWord(reason, plainWriter)),
  };
}
