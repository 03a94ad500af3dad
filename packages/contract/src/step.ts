import {
  happenings,
  jobKinds,
  mendings,
  runKinds,
  upkeepKinds,
  type machineSteps,
  type StepBody,
} from '@tempera/core/facts';
import { dosings, tasteLevers } from '@tempera/core/house';
import { comparisons, preferences, sourBitterWords, trialAxes, weakStrongWords } from '@tempera/core/taste';
import { z } from 'zod';
import { entityId, factId, instant } from './common.ts';
import { countWithin, name, note, numberWithin, quantity, reason } from './field.ts';

/** The steps of the bar itself, each with its own body. */

const MOST_READINGS = 12;
const GAUGE_END = 1_000;
const MOST_PEOPLE = 40;
const MOST_GRINDERS = 40;
const MOST_DOSES = 20;
const MOST_NOTES = 12;
const MOST_FAULTS = 60;
const LONGEST_LINE = 400;
const LONGEST_PUT_OFF_MIN = 240;
const MOST_CHANGES = 24;
const MOST_DAYS_KEPT = 10_000;

const readings = z
  .array(z.strictObject({ gauge: name, value: numberWithin('gauge', -GAUGE_END, GAUGE_END, '') }))
  .max(MOST_READINGS);
const taste = (what: string) => numberWithin(what, 0, 10, '');
const chance = z.number().min(0).max(1);
const secondsOff = z.number().min(-180).max(180);

const machineStep = <K extends (typeof machineSteps)[number]>(step: K) =>
  z.strictObject({
    step: z.literal(step),
    machineId: entityId.nullable(),
    readings,
    takesBack: factId.nullable(),
  });

const trialCup = z.strictObject({
  ratio: numberWithin('ratio', 0.5, 25, ''),
  timeS: quantity('timeS'),
  doseG: quantity('doseG'),
  tempC: numberWithin('brew temperature', 60, 100, '°C'),
});
const trialWord = z.strictObject({
  sourBitter: z.enum(sourBitterWords).nullable(),
  weakStrong: z.enum(weakStrongWords).nullable(),
});

/** Every step of the bar’s own, by what it says. */
export const stepBody = z.discriminatedUnion('step', [
  machineStep('switchedOn'),
  machineStep('hot'),
  machineStep('takenBack'),
  z.strictObject({
    step: z.literal('planned'),
    run: z.enum(runKinds).optional(),
    grinderIds: z.array(entityId).min(1).max(MOST_GRINDERS).optional(),
    opensAt: instant,
    from: instant,
    people: z
      .array(z.strictObject({ personId: entityId, from: instant }))
      .min(1)
      .max(MOST_PEOPLE),
    detergent: z.boolean(),
  }),
  z.strictObject({ step: z.literal('begun'), job: z.enum(jobKinds), stationId: entityId.nullable() }),
  z.strictObject({ step: z.literal('skipped'), job: z.enum(jobKinds), stationId: entityId.nullable(), why: reason }),
  z.strictObject({
    step: z.literal('water'),
    machineId: entityId,
    waterRuns: z.boolean(),
    filterInDate: z.boolean(),
  }),
  z.strictObject({
    step: z.literal('scale'),
    knownG: numberWithin('known weight', 1, 5_000, 'g'),
    shownG: numberWithin('weight shown', -5_000, 5_000, 'g'),
  }),
  z.strictObject({ step: z.literal('hopper'), grinderId: entityId }),
  z.strictObject({
    step: z.literal('rinsed'),
    groupId: entityId,
    rinseS: numberWithin('rinse', 0, 600, 's').nullable(),
    screenCleaned: z.boolean(),
    detergent: z.boolean(),
  }),
  z.strictObject({ step: z.literal('firstDose'), grinderId: entityId }),
  z.strictObject({
    step: z.literal('doseTime'),
    grinderId: entityId,
    way: z.enum(dosings),
    discardedG: quantity('purgeG'),
    grindTimeS: quantity('grindTimeS').nullable(),
    dosesG: z.array(quantity('doseG')).max(MOST_DOSES),
    holds: z.boolean(),
  }),
  z.strictObject({
    step: z.literal('groupChecked'),
    groupId: entityId,
    offS: secondsOff,
    sdS: z.number().min(0).max(180),
    finding: z.enum(['grinder', 'group', 'none', 'unsure']),
    foundId: entityId.nullable(),
    chance,
  }),
  z.strictObject({ step: z.literal('mended'), groupId: entityId, what: z.enum(mendings) }),
  z.strictObject({
    step: z.literal('button'),
    groupId: entityId,
    button: name,
    count: countWithin('volume count', 1, 5_000),
    yieldsG: z.array(quantity('yieldG')).min(1).max(MOST_DOSES),
    nextCount: countWithin('volume count', 1, 5_000),
  }),
  z.strictObject({
    step: z.literal('tasted'),
    grinderId: entityId,
    tasterId: entityId,
    shotId: factId.nullable().optional(),
    acidity: taste('acidity').nullable().optional(),
    bitterness: taste('bitterness').nullable().optional(),
    strength: taste('strength').nullable().optional(),
    finish: taste('finish').nullable().optional(),
    than: z.enum(comparisons).optional(),
    inMilk: z.boolean().optional(),
    sourBitter: taste('sour to bitter').nullable(),
    weakStrong: taste('weak to strong').nullable(),
    body: taste('body').nullable(),
    sweetness: taste('sweetness').nullable(),
    notes: z.array(name).max(MOST_NOTES),
    tdsPct: numberWithin('strength', 0.1, 30, '% TDS').nullable(),
  }),
  z.strictObject({
    step: z.literal('tasteSettled'),
    grinderId: entityId,
    change: z.strictObject({ lever: z.enum([...tasteLevers, 'window']), by: z.number().min(-20).max(20) }).nullable(),
  }),
  z.strictObject({
    step: z.literal('aimKept'),
    grinderId: entityId,
    changes: z
      .array(
        z.strictObject({ lever: z.enum(['yield', 'dose', 'temperature', 'window']), by: z.number().min(-20).max(20) }),
      )
      .min(1)
      .max(MOST_CHANGES),
    holdsUntil: instant,
    days: countWithin('days', 1, MOST_DAYS_KEPT),
  }),
  z.strictObject({
    step: z.literal('trialBegan'),
    trialId: factId,
    coffeeId: entityId,
    start: trialCup,
    axes: z.array(z.enum(trialAxes)).min(1).max(trialAxes.length),
    purgeG: quantity('purgeG'),
    blind: z.boolean(),
  }),
  z.strictObject({
    step: z.literal('trialTasted'),
    trialId: factId,
    tasterId: entityId,
    left: trialCup,
    right: trialCup,
    better: z.enum(preferences),
    leftWord: trialWord,
    rightWord: trialWord,
  }),
  z.strictObject({ step: z.literal('happened'), what: z.enum(happenings), grinderId: entityId.nullable() }),
  z.strictObject({
    step: z.literal('air'),
    tempC: quantity('airTempC'),
    humidityPct: quantity('humidityPct'),
    measuredBy: z.enum(['device', 'hand']),
  }),
  z.strictObject({
    step: z.literal('doseSet'),
    grinderId: entityId,
    doseG: quantity('doseG'),
    grindTimeS: quantity('grindTimeS').nullable(),
  }),
  z.strictObject({
    step: z.literal('note'),
    text: reason,
    grinderId: entityId.nullable(),
    coffeeId: entityId.nullable(),
  }),
  z.strictObject({ step: z.literal('noteDone'), noteId: factId }),
  z.strictObject({ step: z.literal('handedOver'), says: z.array(z.string().max(LONGEST_LINE)).max(MOST_FAULTS) }),
  z.strictObject({ step: z.literal('takenOver'), handedOverId: factId }),
  z.strictObject({
    step: z.literal('putOff'),
    grinderId: entityId,
    minutes: countWithin('minutes', 1, LONGEST_PUT_OFF_MIN),
  }),
  z.strictObject({
    step: z.literal('milk'),
    purged: z.boolean(),
    steamBar: numberWithin('steam', 0, 4, 'bar').nullable(),
    thermometer: z
      .strictObject({
        in: z.enum(['ice', 'boiling']),
        showedC: numberWithin('thermometer', -20, 120, '°C'),
      })
      .nullable(),
    stopC: quantity('milkTempC').nullable(),
  }),
  z.strictObject({
    step: z.literal('hopperEmptied'),
    grinderId: entityId,
    tubG: numberWithin('weight of the beans', 0, 20_000, 'g').nullable(),
  }),
  z.strictObject({ step: z.literal('chuteBrushed'), grinderId: entityId }),
  z.strictObject({
    step: z.literal('backFlushed'),
    groupId: entityId,
    detergent: z.boolean(),
    rinsedClear: z.boolean(),
    screenDown: z.boolean(),
    gasketGood: z.boolean().nullable(),
  }),
  z.strictObject({ step: z.literal('soaked') }),
  z.strictObject({ step: z.literal('wandCleaned'), machineId: entityId }),
  z.strictObject({ step: z.literal('traysCleaned'), machineId: entityId }),
  z.strictObject({ step: z.literal('switchedOff'), machineId: entityId, to: z.enum(['off', 'standby']) }),
  z.strictObject({
    step: z.literal('upkept'),
    what: z.enum(upkeepKinds),
    stationId: entityId,
    by: note,
  }),
  z.strictObject({ step: z.literal('upkeepSeen'), left: z.array(z.string().max(LONGEST_LINE)).max(MOST_FAULTS) }),
  z.strictObject({
    step: z.literal('tomorrow'),
    opensAt: instant.nullable(),
    opensById: entityId.nullable(),
    bags: z.array(z.strictObject({ grinderId: entityId, bagId: entityId })).max(MOST_GRINDERS),
    thawed: z.array(entityId).max(MOST_FAULTS),
  }),
  z.strictObject({ step: z.literal('thawed'), bagId: entityId }),
  z.strictObject({
    step: z.literal('signedOff'),
    notRight: z.array(z.string().max(LONGEST_LINE)).max(MOST_FAULTS),
  }),
]);

/** Compile-time proof that what zod lets in is what the core reads. */
type Same<A, B> = [A] extends [B] ? ([B] extends [A] ? true : never) : never;
/** Compile-time proof that what zod lets in is what core reads. */
export const stepMatchesCore: Same<z.infer<typeof stepBody>, StepBody> = true;
