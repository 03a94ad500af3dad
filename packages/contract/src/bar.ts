import type { PackedMemory } from '@tempera/core/calibration';
import { machineUpkeeps, upkeepKinds } from '@tempera/core/facts';
import { roasts } from '@tempera/core/taste';
import { z } from 'zod';
import { entityId, setting } from './common.ts';
import { countWithin, day, name, numberWithin, place, quantity } from './field.ts';
import { recipeVersionSchema } from './house.ts';
import { recordedFactSchema, type RecordedFact, type RecordedStep } from './journal.ts';
import { housePolicySchema } from './policy.ts';
import { sentences } from './sentences.ts';

export type { Place } from './field.ts';

const MOST_GAUGES = 6;
const MOST_BUTTONS = 8;

const gauge = z
  .strictObject({
    name,
    unit: z.enum(['bar', '°C']),
    min: numberWithin('gauge', 0, 150, ''),
    max: numberWithin('gauge', 0, 150, ''),
  })
  .refine(({ min, max }) => min < max, { path: ['max'], error: sentences.minOverMax });
/** A gauge of a machine, and between which numbers it is right. */
export type Gauge = z.infer<typeof gauge>;

/** How a machine heats its water. */
export const boilers = ['one', 'exchanger', 'brewAndSteam', 'perGroup'] as const;

/** What is kept up at a machine, by calendar or by litres; burrs are a grinder's. */
const machineUpkeep = z.strictObject({
  what: z.enum(machineUpkeeps),
  /** Due so many months after it was last done; null: not by the calendar. */
  months: numberWithin('time between', 0.2, 120, 'months').nullable(),
  /** Due after so many litres; null: not by count. */
  litres: numberWithin('water between', 50, 1_000_000, 'l').nullable(),
  /** When it was last done, as far as nobody wrote it down as it was done. */
  lastOn: day.nullable(),
});
const MOST_UPKEEP = 12;

/** A machine: boiler, gauges, minutes to warm, what is kept up. */
export const machineSheetSchema = z.strictObject({
  name,
  boiler: z.enum(boilers),
  gauges: z.array(gauge).max(MOST_GAUGES),
  warmUpMin: numberWithin('warm-up', 0, 120, 'min'),
  setsTemp: z.boolean(),
  setsPressure: z.boolean(),
  /** No pump: a lever presses, and time runs from its first pull. */
  lever: z.boolean().default(false),
  upkeep: z.array(machineUpkeep).max(MOST_UPKEEP).default([]),
});
/** A machine as it is kept. */
export type MachineSheet = z.infer<typeof machineSheetSchema>;

const button = z.strictObject({ name, counts: countWithin('volume count', 1, 5_000) });

/** A group head: its machine and place, its basket, its volume buttons. */
export const groupSheetSchema = z.strictObject({
  name,
  machineId: entityId,
  position: countWithin('place in the machine', 1, 12),
  buttons: z.array(button).max(MOST_BUTTONS),
  basketId: entityId.nullable(),
  cleanedOn: day.nullable(),
});
/** A group head as it is kept. */
export type GroupSheet = z.infer<typeof groupSheetSchema>;

/** How grounds come out of a grinder. */
export const dosers = ['direct', 'chamber', 'automat'] as const;

/** A grinder: its dial, and what the house believes of it (s a mark, g held, g/s). */
export const grinderSheetSchema = z
  .strictObject({
    name,
    stepped: z.boolean(),
    stepMarks: numberWithin('step', 0.01, 50, 'marks'),
    finer: z.enum(['down', 'up']),
    dialMin: setting,
    dialMax: setting,
    seedSetting: setting,
    secondsPerMark: numberWithin('seconds per mark', 0.1, 120, 's').nullable(),
    retentionG: numberWithin('retention', 0, 30, 'g').nullable(),
    /** Whether the collar shows a number; else marks are counted from where it came. */
    readsDial: z.boolean().default(true),
    /** Whether the collar is unlocked before it turns. */
    unlocksFirst: z.boolean().default(false),
    /** Grounds fall straight into the basket, through a chamber with a lever, or an automat fills to a line and tamps. */
    doser: z.enum(dosers).default('direct'),
    rateGps: numberWithin('rate', 0.2, 20, 'g/s').nullable(),
    doseSingleS: quantity('grindTimeS').nullable(),
    doseDoubleS: quantity('grindTimeS').nullable(),
    burrKg: numberWithin('burr age', 0, 20_000, 'kg').nullable(),
    burrsOn: day.nullable(),
    /** What a set of burrs is good for; null: nobody says. */
    burrLifeKg: numberWithin('life of the burrs', 10, 20_000, 'kg').nullable().default(null),
  })
  .refine(({ dialMin, dialMax }) => dialMin < dialMax, { path: ['dialMax'], error: sentences.minOverMax })
  .refine(({ dialMin, dialMax, seedSetting }) => seedSetting >= dialMin && seedSetting <= dialMax, {
    path: ['seedSetting'],
    error: sentences.offTheDial,
  });
/** A grinder as it is kept. */
export type GrinderSheet = z.infer<typeof grinderSheetSchema>;

/** A basket, between how many grams it works, and what it holds struck level. */
export const basketSheetSchema = z
  .strictObject({
    name,
    minG: numberWithin('basket', 3, 40, 'g'),
    maxG: numberWithin('basket', 3, 40, 'g'),
    wall: z.enum(['single', 'dual']),
    /** What it holds struck level, weighed once; null: nobody did. */
    levelG: numberWithin('level', 3, 40, 'g').nullable().default(null),
    /** What settling and refilling adds, and what a hollow scrape takes off. */
    fillStepG: numberWithin('step', 0.1, 5, 'g').nullable().default(null),
  })
  .refine(({ minG, maxG }) => minG < maxG, { path: ['maxG'], error: sentences.minOverMax });
/** A basket as it is kept. */
export type BasketSheet = z.infer<typeof basketSheetSchema>;

/** What else stands on the counter. */
export const fixtureKinds = ['scale', 'knockBox', 'milk'] as const;
/** Something else on the counter. */
export const fixtureSheetSchema = z.strictObject({ name, kind: z.enum(fixtureKinds) });
/** Something else on the counter, as it is kept. */
export type FixtureSheet = z.infer<typeof fixtureSheetSchema>;

/** A counter, and which way people stand at it. */
export const counterSheetSchema = z.strictObject({ name, faces: z.enum(['up', 'down']) });
/** A counter as it is kept. */
export type CounterSheet = z.infer<typeof counterSheetSchema>;

const group = z
  .object({ id: entityId, name: z.string(), machineId: entityId, position: z.int() })
  .meta({ id: 'Group' });
const machine = z
  .object({
    id: entityId,
    name: z.string(),
    lever: z.boolean(),
    setsTemp: z.boolean(),
    place,
    groups: z.array(group),
  })
  .meta({ id: 'Machine' });
const recipeHere = {
  /** Whether the recipe's basket is dual-walled: its time hardly answers to the grind. */
  dualWalled: z.boolean(),
  /** What that basket is made for; null: the recipe names none. */
  basketG: z.object({ min: z.number(), max: z.number() }).nullable(),
  /** What it holds struck level, and what a step more or less is; null: nobody weighed it. */
  levelG: z.number().nullable(),
  fillStepG: z.number().nullable(),
  recipe: recipeVersionSchema,
};
const grinder = z
  .object({
    id: entityId,
    name: z.string(),
    place,
    stepMarks: z.number().positive(),
    finer: z.enum(['down', 'up']),
    dialMin: z.number(),
    dialMax: z.number(),
    secondsPerMark: z.number().nullable(),
    retentionG: z.number().nullable(),
    rateGps: z.number().nullable(),
    seedSetting: z.number(),
    coffee: z.string(),
    coffeeId: entityId,
    roast: z.enum(roasts),
    decaf: z.boolean(),
    ...recipeHere,
    /** The recipe's own numbers, where taste changed today's aim: the recipe beside then tells the aim. */
    before: z
      .object({
        doseG: z.number(),
        yieldG: z.number(),
        tempC: z.number().nullable(),
        timeMinS: z.number(),
        timeMaxS: z.number(),
      })
      .optional(),
    /** The coffee's other recipes on the same collar. */
    others: z.array(z.object(recipeHere)),
    readsDial: z.boolean(),
    unlocksFirst: z.boolean(),
    doser: z.enum(dosers),
    /** Whether the listed bag in its hopper is past the coffee's window. */
    bagPast: z.boolean(),
  })
  .meta({ id: 'Grinder' });
/** A grinder that nobody can dial in yet, and what it lacks. */
const waiting = z.object({ id: entityId, name: z.string(), place, lacks: z.enum(['coffee', 'recipe']) });
const counter = z
  .object({ id: entityId, name: z.string(), place, faces: z.enum(['up', 'down']) })
  .meta({ id: 'Counter', description: 'A counter, and the side of the plan where the barista stands.' });
const fixture = z.object({ id: entityId, kind: z.enum(fixtureKinds), name: z.string(), place }).meta({ id: 'Fixture' });

/** A group head in its machine. */
export type Group = z.infer<typeof group>;
/** A machine in its place, with its groups. */
export type Machine = z.infer<typeof machine>;
/** A grinder in its place, with its coffee and the recipe in force. */
export type Grinder = z.infer<typeof grinder>;
/** A grinder that waits for a coffee or a recipe. */
export type WaitingGrinder = z.infer<typeof waiting>;
/** A counter in its place. */
export type Counter = z.infer<typeof counter>;
/** Something else in its place. */
export type Fixture = z.infer<typeof fixture>;

const room = z.strictObject({
  widthCm: numberWithin('room', 100, 5_000, 'cm'),
  depthCm: numberWithin('room', 100, 5_000, 'cm'),
});

/** The bar as it stands, with the facts that tell how each grinder stands: its last lock and all since. */
export const barSchema = z
  .object({
    room,
    planRevision: z.int(),
    counters: z.array(counter),
    machines: z.array(machine),
    grinders: z.array(grinder),
    waiting: z.array(waiting),
    fixtures: z.array(fixture),
    house: housePolicySchema,
    facts: z.array(recordedFactSchema),
    /** Steps of the machines in the last day. */
    steps: z.array(recordedFactSchema),
    /** What the bar had taught by the day's start: the facts since, and those still unsent, are folded onto it. */
    memory: z.object({ upTo: z.string(), state: z.record(z.string(), z.unknown()) }),
    /** Versions of recipes that the facts name, beside those in force. */
    recipesNamed: z.array(recipeVersionSchema),
  })
  .meta({ id: 'Bar' });
/** The bar as it stands, with the facts of the day and what it has taught. */
export type Bar = Omit<z.infer<typeof barSchema>, 'facts' | 'steps' | 'memory'> & {
  facts: RecordedFact[];
  steps: RecordedStep[];
  memory: { upTo: string; state: PackedMemory };
};

/** Pieces that stand somewhere. */
export const pieceKinds = ['machine', 'grinder', 'fixture', 'counter'] as const;
/** A kind of piece on the plan. */
export type PieceKind = (typeof pieceKinds)[number];
const MOST_PIECES = 200;

/** The whole plan as somebody moved it, based on the plan that they saw. */
export const planChangeSchema = z
  .strictObject({
    basedOn: z.int().nonnegative(),
    room,
    pieces: z.array(z.strictObject({ kind: z.enum(pieceKinds), id: entityId, place })).max(MOST_PIECES),
  })
  .meta({ id: 'PlanChange' });
/** The whole plan as somebody moved it, cm. */
export type PlanChange = z.infer<typeof planChangeSchema>;

/** What the bar has taught, in seconds of a shot; what nobody pulled for two months is left out. */
export const learnedSchema = z
  .object({
    grinders: z.array(
      z.object({
        id: entityId,
        secondsPerMark: z.number(),
        sdS: z.number(),
        shots: z.int(),
        /** Ground since the burrs were fitted, kg; null when nobody wrote that down. */
        burrKg: z.number().nullable(),
      }),
    ),
    machines: z.array(z.object({ id: entityId, warmUpMin: z.number(), sdMin: z.number(), mornings: z.int() })),
    groups: z.array(z.object({ id: entityId, offS: z.number(), sdS: z.number(), shots: z.int() })),
    /** By group: the grams that fall after the stop, and how many traces showed them. */
    /** What a millilitre in a marked glass weighs, crema included: g, its relative doubt, and in how many shots it was weighed. */
    glass: z.object({ gPerMl: z.number(), sdShare: z.number(), count: z.int() }),
    drips: z.array(z.object({ groupId: entityId, meanG: z.number(), sdG: z.number(), count: z.int() })),
  })
  .meta({ id: 'Learned' });
/** What the shots taught, with the doubt of each number (one sd). */
export type Learned = z.infer<typeof learnedSchema>;

/** What is kept up at the bar: the rule of each, when it was last done, and what went through since. */
export const upkeepSchema = z
  .object({
    items: z.array(
      z.object({
        what: z.enum(upkeepKinds),
        stationId: entityId,
        months: z.number().nullable(),
        /** Litres, or kilograms for burrs. */
        count: z.number().nullable(),
        /** When it was last done; null: nobody knows. */
        lastOn: day.nullable(),
        /** Who did it then: a person of the house, or whoever they named; null: nobody wrote it down. */
        lastBy: z.string().nullable(),
        /** What went through since then, in the unit of the count, and a day's worth of it. */
        counted: z.number().nullable(),
        perDay: z.number().nullable(),
        /** Days between the times that it was done before, oldest first. */
        gapsDays: z.array(z.number()),
      }),
    ),
  })
  .meta({ id: 'Upkeep' });
/** What is kept up at the bar. */
export type Upkeep = z.infer<typeof upkeepSchema>;
