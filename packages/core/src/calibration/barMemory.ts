import {
  isLook,
  stationsOf,
  type FactOf,
  type SeenBody,
  type StandingFact,
  type StandingFacts,
  type StepOf,
} from '../facts/index.ts';
import { hoursBetween, MS_PER_DAY } from '../numbers/index.ts';
import type { RecipeTarget } from './adviceCase.ts';
import { newBar, withGrinder, withGroup, withRecipe, type BarShot } from './barModel.ts';
import { emptyChute, grindShot } from './chute.ts';
import { marksFiner, type Dial } from './dial.ts';
import { engineDefaults } from './engineDefaults.ts';
import { priorOf } from './grinderPrior.ts';
import { caseShotOf } from './caseShot.ts';
import { habitAfterBag, habitAfterJump } from './habit.ts';
import { habitOf, teachesHabit } from './memoryHabit.ts';
import { observationOf } from './observationOf.ts';
import { nothingPassed, passedBy } from './passing.ts';
import { foldIn, foldOutIdle } from './memoryFold.ts';
import type { BarMemory, Basis, GrinderMemory, LevelMemory, NewBurrs, RecentShot } from './memoryState.ts';
import type { Observation } from './observations.ts';
import { isTexture } from './texture.ts';
import { siblingOf } from './sibling.ts';
import { windowMiddleS } from './windowMiddle.ts';

/** A grinder as the memory needs it. */
export interface GrinderInMemory extends Omit<Basis, 'finer'> {
  id: string;
  dial: Dial;
}

/** What the facts are read with: the grinders' sheets, and every recipe that a shot may name. */
export interface MemoryContext {
  grinders: ReadonlyMap<string, GrinderInMemory>;
  recipeOf: (recipeVersionId: string) => RecipeTarget | null;
}

/** A bar that has taught nothing yet. */
export const emptyMemory: BarMemory = { base: newBar(), grinders: {}, groups: {} };

/** The kinds of facts that the memory hears, beside `evidenceSteps`; all others teach nothing. */
export const evidenceKinds = ['shot', 'purge', 'collarMove', 'newBag', 'dose', 'seen'] as const;
/** The steps that it hears: doses of the opening's own, what happens in service, and burrs that were changed. */
export const evidenceSteps = ['doseTime', 'happened', 'air', 'upkept'] as const;

const basisOf = ({ dial, secondsPerMark, retentionG, seedSetting }: GrinderInMemory): Basis => ({
  finer: dial.finer,
  secondsPerMark,
  retentionG,
  seedSetting,
});

/** Whether a memory was made with these very sheets, as far as it has heard of their grinders. */
export function isMadeWith(memory: BarMemory, { grinders }: MemoryContext): boolean {
  return Object.entries(memory.grinders).every(([id, { basis }]) => {
    const grinder = grinders.get(id);
    if (!grinder) return false;
    const now = basisOf(grinder);
    return (Object.keys(now) as (keyof Basis)[]).every((key) => now[key] === basis[key]);
  });
}

/** The memory after all of these facts, in their order. */
export function updateWithFacts(memory: BarMemory, facts: StandingFacts, context: MemoryContext): BarMemory {
  return facts.reduce((before, fact) => updateWithFact(before, fact, context), memory);
}

/** The memory after one more fact. Facts of grinders that nobody knows are not heard. */
export function updateWithFact(memory: BarMemory, fact: StandingFact, context: MemoryContext): BarMemory {
  if (fact.kind === 'step' && fact.body.step === 'happened') return afterHappening(memory, fact.body);
  if (fact.kind === 'step' && fact.body.step === 'air') return afterAir(memory, fact.body);
  if (fact.kind === 'step' && fact.body.step === 'upkept') return afterUpkeep(memory, fact.body, Date.parse(fact.at));
  const grinderId = fact.kind === 'step' ? (stationsOf(fact.body).grinderId ?? null) : fact.grinderId;
  const known = grinderId === null ? undefined : context.grinders.get(grinderId);
  if (!known) return memory;
  const grinder = memory.grinders[known.id] ?? newGrinder(known);
  if (fact.kind === 'shot') {
    return afterShot(memory, known, grinder, fact, context.recipeOf(fact.body.recipeVersionId));
  }
  if (fact.kind === 'newBag') return withMemoryOf(memory, known.id, afterBag(grinder, fact));
  if (fact.kind === 'seen' && isLook(fact.body.sign)) {
    const recipe = context.recipeOf(fact.body.recipeVersionId ?? '');
    const told = recipe && lookedAt(fact.body, recipe);
    return told ? afterLook(memory, known, grinder, fact, told) : memory;
  }
  if (fact.kind === 'seen' && isTexture(fact.body.sign)) {
    const x = marksFiner(known.dial, fact.body.setting, known.seedSetting);
    return withMemoryOf(memory, known.id, { ...grinder, felt: { x, texture: fact.body.sign } });
  }
  const passing = passedBy(grinder.passing, fact, known.id);
  return passing === grinder.passing ? memory : withMemoryOf(memory, known.id, { ...grinder, passing });
}

const newGrinder = (known: GrinderInMemory): GrinderMemory => ({
  basis: basisOf(known),
  coffee: null,
  firstCoffeeId: null,
  levels: [],
  chute: emptyChute,
  passing: nothingPassed,
  lastShotAtMs: null,
  responseGained: 0,
  shots: 0,
  recent: [],
});

const withMemoryOf = (memory: BarMemory, grinderId: string, grinder: GrinderMemory): BarMemory => ({
  ...memory,
  grinders: { ...memory.grinders, [grinderId]: grinder },
});

/** Another bag is another bed; another coffee is another level, which may be known from before. */
function afterBag(grinder: GrinderMemory, { id, at, body }: FactOf<'newBag'>): GrinderMemory {
  const { coffeeId } = body;
  const firstCoffeeId =
    grinder.firstCoffeeId ?? (grinder.coffee === null && !body.otherCoffee ? (coffeeId ?? null) : null);
  const coffee = !body.otherCoffee
    ? grinder.coffee
    : coffeeId !== undefined && coffeeId === firstCoffeeId
      ? null
      : (coffeeId ?? id);
  const d = engineDefaults;
  return {
    ...grinder,
    coffee,
    firstCoffeeId,
    responseGained: grinder.responseGained + d.responseNewBagSd ** 2,
    ...(grinder.newBurrs && { newBurrs: afterBagThrough(grinder.newBurrs, Date.parse(at)) }),
    ...(grinder.habit && { habit: habitAfterBag(grinder.habit, coffee !== grinder.coffee) }),
    levels: gaining({ ...grinder, coffee }, d.newBagSd ** 2, 1),
  };
}

/** What happened makes the level less sure, at one grinder or at all that the bar has heard of. */
function afterHappening(memory: BarMemory, { what, grinderId }: StepOf<'happened'>): BarMemory {
  const d = engineDefaults;
  const sd = {
    refill: d.refillSd,
    cleaned: d.cleanedSd,
    otherHands: d.otherHandsSd,
    // What lies ground ages; the grinder stands as it stood.
    chamberFilled: 0,
    chamberEmptied: 0,
    doors: d.airJumpSd,
    ovens: d.airJumpSd,
    rushBegan: d.rushSd,
    rushEnded: d.rushSd,
  }[what];
  return lessSure(memory, sd ** 2, grinderId);
}

/** Variance that the levels in use gain, at one grinder or, for null, at all that the bar has heard of. */
function lessSure(memory: BarMemory, variance: number, grinderId: string | null): BarMemory {
  const grinders = Object.fromEntries(
    Object.entries(memory.grinders).map(([id, grinder]) => [
      id,
      grinderId === null || grinderId === id ? jumping(grinder, variance) : grinder,
    ]),
  );
  return { ...memory, grinders };
}

/** Air that changed since it was told last makes every level less sure, as doors and ovens do, and no more than twice that. */
function afterAir(memory: BarMemory, { tempC, humidityPct }: StepOf<'air'>): BarMemory {
  const d = engineDefaults;
  const before = memory.air ?? { tempC, humidityPct };
  const jumps = Math.hypot((tempC - before.tempC) / d.airJumpC, (humidityPct - before.humidityPct) / d.airJumpPct);
  return {
    ...lessSure(memory, (d.airJumpSd * Math.min(jumps, MOST_JUMPS)) ** 2, null),
    air: { tempC, humidityPct },
  };
}
const MOST_JUMPS = 2;

/** Other burrs are another grinder: neither where it stands nor how it answers is known as before. */
function afterUpkeep(memory: BarMemory, { what, stationId }: StepOf<'upkept'>, atMs: number): BarMemory {
  const grinder = memory.grinders[stationId];
  if (what !== 'burrs' || !grinder) return memory;
  const d = engineDefaults;
  return withMemoryOf(memory, stationId, {
    ...grinder,
    newBurrs: { atMs, bags: 0, settledAtMs: null },
    responseGained: grinder.responseGained + d.responseRelativeSd ** 2,
    levels: grinder.levels.map((level) => ({ ...level, gained: level.gained + d.servicedSd ** 2 })),
    ...(grinder.habit && { habit: habitAfterJump(grinder.habit, d.servicedSd ** 2) }),
  });
}

/** The bag before has gone through: after a few of them the burrs have lost their first edge. */
function afterBagThrough(burrs: NewBurrs, atMs: number): NewBurrs {
  const bags = burrs.bags + 1;
  const hasSettled = burrs.settledAtMs === null && bags >= engineDefaults.newBurrsBags;
  return { ...burrs, bags, settledAtMs: hasSettled ? atMs : burrs.settledAtMs };
}

/** The level in use is less sure by so much variance. */
const jumping = (grinder: GrinderMemory, variance: number): GrinderMemory => ({
  ...grinder,
  levels: gaining(grinder, variance),
  ...(grinder.habit && { habit: habitAfterJump(grinder.habit, variance) }),
});

const gaining = ({ levels, coffee }: GrinderMemory, variance: number, bags = 0): GrinderMemory['levels'] =>
  levels.map((level) =>
    level.coffee === coffee
      ? { ...level, gained: level.gained + variance, ...(bags > 0 && { bags: (level.bags ?? 0) + bags }) }
      : level,
  );

/** What a level has gained is in what was heard of it. */
const heardAt = ({ bags: _, ...level }: LevelMemory, atMs: number): LevelMemory => ({
  ...level,
  lastAtMs: Math.max(level.lastAtMs, atMs),
  gained: 0,
});

/** What a look says of ln T against the recipe's window; null where it says nothing of the grind. */
function lookedAt({ sign }: SeenBody, { timeS: { min, max } }: RecipeTarget): number | null {
  const beyond = engineDefaults.lookBeyondLn;
  if (sign === 'asItShould') return (Math.log(min) + Math.log(max)) / 2;
  if (sign === 'fastPale') return Math.log(min) - beyond;
  return sign === 'slowDark' ? Math.log(max) + beyond : null;
}

/** A look heard as a shot of its own, with the noise that a look deserves. */
function afterLook(
  memory: BarMemory,
  { id, dial, seedSetting }: GrinderInMemory,
  grinder: GrinderMemory,
  { id: factId, at, groupId, body }: FactOf<'seen'>,
  lnTimeS: number,
): BarMemory {
  const level = grinder.levels.find(({ coffee }) => coffee === grinder.coffee);
  // A look says how it stands against what is known; where nothing is, it is too little to begin with.
  if (!level) return memory;
  const atMs = Date.parse(at);
  const looksBefore = grinder.recent.length - 1 - grinder.recent.findLastIndex(({ looked }) => !looked);
  const told: BarShot = {
    grinder: id,
    coffee: grinder.coffee,
    group: groupId !== null && memory.groups[groupId] ? groupId : null,
    x: marksFiner(dial, body.setting, seedSetting),
    lnTimeS,
    lnDose: 0,
    addedVariance: engineDefaults.lookSd ** 2 * (1 + looksBefore),
    choked: false,
  };
  const observed = { shot: told, ...wandered(memory, grinder, level, told.group, atMs) };
  return withMemoryOf(memory, id, {
    ...grinder,
    levels: grinder.levels.map((one) => (one === level ? heardAt(level, atMs) : one)),
    lastShotAtMs: atMs,
    responseGained: 0,
    recent: [...grinder.recent, { factId, atMs, observed, oldShare: 0, looked: true, ...bagsOf(level) }],
  });
}

function afterShot(
  memory: BarMemory,
  known: GrinderInMemory,
  grinder: GrinderMemory,
  fact: FactOf<'shot'>,
  recipe: RecipeTarget | null,
): BarMemory {
  if (recipe === null) return memory;
  const { id, dial, retentionG, seedSetting, secondsPerMark } = known;
  const atMs = Date.parse(fact.at);
  const { coffee } = grinder;
  const level = grinder.levels.find((one) => one.coffee === coffee) ?? {
    coffee,
    recipe: {
      doseG: recipe.doseG,
      yieldG: recipe.yieldG,
      ...(recipe.recipeId === undefined ? {} : { recipeId: recipe.recipeId }),
      middleS: windowMiddleS(recipe.timeS),
    },
    lastAtMs: atMs,
    gained: 0,
  };
  const shot = caseShotOf(fact, grinder.passing.purgedG);
  const place = { dial, reference: seedSetting, retentionG, recipeDoseG: recipe.doseG };
  const { ground, after } = grindShot(grinder.chute, shot, place);
  const isNew = !grinder.levels.some((one) => one.coffee === coffee);
  let base = isNew
    ? withGrinder(memory.base, id, priorOf({ recipe, secondsPerMark, dial }, null, null, grinder.felt), coffee)
    : memory.base;
  if (fact.groupId !== null) base = withGroup(base, fact.groupId);
  const sibling = siblingOf(level.recipe, recipe);
  if (sibling) base = withRecipe(base, sibling.recipeId);
  const { doseG, yieldG } = level.recipe;
  const normalisedTo = sibling ? recipe : { ...recipe, doseG, yieldG };
  const heardAs = observationOf(base, { grinder: id, coffee }, normalisedTo, shot, ground).told;
  const told =
    heardAs && sibling ? { ...heardAs, lnTimeS: heardAs.lnTimeS - sibling.lnShift, recipe: sibling.recipeId } : heardAs;
  const observed = told && { shot: told, ...wandered(memory, grinder, level, fact.groupId, atMs) };
  const levels = grinder.levels.filter((one) => one.coffee !== coffee);
  const heard: GrinderMemory = {
    ...grinder,
    levels: [...levels, observed ? heardAt(level, atMs) : level],
    chute: after,
    passing: nothingPassed,
    lastShotAtMs: observed ? atMs : grinder.lastShotAtMs,
    responseGained: observed ? 0 : grinder.responseGained,
    shots: grinder.shots + 1,
    recent: [
      ...grinder.recent,
      { factId: fact.id, atMs, observed, oldShare: ground.oldShare, ...(observed && bagsOf(level)) },
    ],
    ...(told && teachesHabit(told, ground.oldShare) && { habit: habitOf(grinder, base, told, atMs) }),
  };
  const groups =
    fact.groupId === null
      ? memory.groups
      : {
          ...memory.groups,
          [fact.groupId]: { lastAtMs: atMs, shots: (memory.groups[fact.groupId]?.shots ?? 0) + 1 },
        };
  const next = { base, groups, grinders: { ...memory.grinders, [id]: heard } };
  return heard.recent.length < 2 * RECENT_SHOTS ? next : foldOutIdle(foldIn(next, id, RECENT_SHOTS), atMs);
}

const bagsOf = ({ bags = 0 }: LevelMemory): Pick<RecentShot, 'bags'> => (bags > 0 ? { bags } : {});

/**
 * So many of a grinder's newest shots, at least, are weighed by one another: more than a morning takes, so that a channel in
 * its first shot is still found out by its last.
 */
const RECENT_SHOTS = 12;

/** What may have wandered since a grinder, its coffee and a group were last heard. */
export function wandered(
  memory: BarMemory,
  grinder: GrinderMemory,
  level: Pick<LevelMemory, 'lastAtMs' | 'gained'>,
  group: string | null,
  atMs: number,
): Omit<Observation, 'shot'> {
  const d = engineDefaults;
  const hours = hoursBetween(level.lastAtMs, atMs);
  // Hours in which new burrs still lost their first edge.
  const fittedAtMs = grinder.newBurrs?.atMs ?? -Infinity;
  const settledAtMs = Math.min(
    atMs,
    grinder.newBurrs?.settledAtMs ?? Infinity,
    fittedAtMs + d.newBurrsDays * MS_PER_DAY,
  );
  const settlingHours = hoursBetween(Math.max(level.lastAtMs, fittedAtMs), settledAtMs);
  const walkedHours = hours + (d.newBurrsDriftTimes ** 2 - 1) * settlingHours;
  const days = (sinceMs: number | null | undefined): number => Math.max(0, atMs - (sinceMs ?? atMs)) / MS_PER_DAY;
  return {
    levelVariance: Math.min(d.driftSdPerRootHour ** 2 * walkedHours + level.gained, d.levelSdNever ** 2),
    responseVariance: Math.min(
      d.responseSdPerRootDay ** 2 * days(grinder.lastShotAtMs) + grinder.responseGained,
      d.responseRelativeSd ** 2,
    ),
    groupVariance: group === null ? 0 : d.groupSdPerRootDay ** 2 * days(memory.groups[group]?.lastAtMs),
  };
}
