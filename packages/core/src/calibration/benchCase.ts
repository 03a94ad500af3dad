import { MS_PER_HOUR } from '../numbers/index.ts';
import { asCorrected, type AnyFact, type FactOf, type Flaw } from '../facts/index.ts';
import type {
  AdviceCase,
  HeardShot,
  HouseEvent,
  HousePolicy,
  RecipeTarget,
  Remembered,
  ShotFault,
} from './adviceCase.ts';
import { rememberBar, type GrinderInBar, type PastShot } from './barHistory.ts';
import type { BarModel } from './barModel.ts';
import { marksFiner, type Dial } from './dial.ts';
import { grindTimeForS } from './doseTime.ts';

/** A grinder as its bench needs it. */
export interface BenchGrinder {
  dial: Dial;
  secondsPerMark: number | null;
  retentionG: number | null;
  /** Where the collar stood before the first recorded fact. */
  seedSetting: number;
  /** Timed doses that were weighed away from the bench, at the opening's own step. */
  weighed?: readonly TimedDose[];
}

/** A dose that was ground by time and weighed. */
export interface TimedDose {
  atMs: number;
  grindTimeS: number;
  doseG: number;
}

/** A grinder's calibration as its facts tell it. */
export interface BenchState {
  /** Where the collar stands. */
  setting: number;
  lastLock: FactOf<'lock'> | null;
  /** Shots, oldest first, since the last lock. */
  shots: FactOf<'shot'>[];
  /** When another bag went in since the last lock, and nobody pulled a shot of it yet; null otherwise. */
  newBagAtMs: number | null;
  /** Grams ground since the last lock: doses, shots without a weighed dose of their own, purges. */
  usedG: number;
  /** The next fitting grind time for the recipe's dose at this setting; null when none was weighed. */
  grindTimeS(doseG: number, setting: number): number | null;
  adviceCase: AdviceCase;
}

const faultOfFlaw: Record<Flaw, ShotFault> = {
  channel: 'channel',
  uneven: 'prep',
  wrongDose: 'prep',
  choke: 'choke',
  other: 'prep',
};

/**
 * Folds a grinder's facts (any order, corrections included) into where its calibration stands at `nowMs`.
 * @param facts of this grinder; those before its last lock only teach the grind time
 * @param remembered what the whole bar knew before those after its last lock
 */
export function benchState(
  facts: readonly AnyFact[],
  grinder: BenchGrinder,
  recipe: RecipeTarget,
  house: HousePolicy,
  nowMs: number,
  remembered: Remembered | null = null,
): BenchState {
  const standing = asCorrected(facts);
  const lockIndex = standing.findLastIndex((fact) => fact.kind === 'lock');
  const lastLock = lockIndex < 0 ? null : (standing[lockIndex] as FactOf<'lock'>);
  // A check of a group is pulled where the grinder holds: it says nothing against its lock.
  const since = standing.slice(lockIndex + 1).filter((fact) => !isCheck(fact));
  const setting = settingAfter(standing) ?? grinder.seedSetting;
  const shots = since.filter((fact) => fact.kind === 'shot');
  const beganMs = shots[0] ? Date.parse(shots[0].at) : nowMs;
  const bags = since.flatMap((fact) => (fact.kind === 'newBag' ? [bagEvent(fact)] : []));
  const beforeFirst = bags.filter(({ atMs }) => atMs <= beganMs);

  return {
    setting,
    lastLock,
    shots,
    newBagAtMs: newBagWaiting(since),
    usedG: gramsUsed(since),
    grindTimeS: (doseG, atSetting) => {
      const xAt = (where: number): number => marksFiner(grinder.dial, where, setting);
      const doses = timedDoses(standing, grinder).map((dose) => ({ ...dose, x: xAt(dose.setting) }));
      return grindTimeForS(doses, doseG, xAt(atSetting));
    },
    adviceCase: {
      recipe,
      dial: grinder.dial,
      secondsPerMark: grinder.secondsPerMark,
      retentionG: grinder.retentionG,
      house,
      since: lastLock && {
        newBag: beforeFirst.length > 0,
        newCoffee: beforeFirst.some(({ kind }) => kind === 'newCoffee'),
        hours: Math.max(0, (beganMs - Date.parse(lastLock.at)) / MS_PER_HOUR),
      },
      held: lastLock && { setting: lastLock.body.setting, timeS: lastLock.body.expected.timeS },
      remembered,
      trimG: lastLock?.body.doseG === undefined ? 0 : lastLock.body.doseG - recipe.doseG,
      nowMs,
      events: bags,
      shots: heardShots(since),
      standsAt: setting,
      purgedG: purgedSince(since),
    },
  };
}

/** Every dose that was ground by time and weighed, at the bench or at the opening, oldest first, with where the collar stood. */
function timedDoses(standing: readonly AnyFact[], grinder: BenchGrinder): (TimedDose & { setting: number })[] {
  const atBench = standing.flatMap((fact) =>
    fact.kind === 'dose' && fact.body.grindTimeS !== null
      ? [{ ...fact.body, grindTimeS: fact.body.grindTimeS, atMs: Date.parse(fact.at) }]
      : [],
  );
  const elsewhere = (grinder.weighed ?? []).map((dose) => ({
    ...dose,
    setting: settingAfter(standing.filter(({ at }) => Date.parse(at) < dose.atMs)) ?? grinder.seedSetting,
  }));
  return [...atBench, ...elsewhere].sort((a, b) => a.atMs - b.atMs);
}

/** Whether a fact is a shot that checks a group, and not the grinder. */
export const isCheck = (fact: AnyFact): boolean => fact.kind === 'shot' && fact.body.check === true;

/** A bag as the engine hears it. */
function bagEvent({ at, body }: FactOf<'newBag'>): HouseEvent {
  return { atMs: Date.parse(at), kind: body.otherCoffee ? 'newCoffee' : 'newBag' };
}

/** Where the last fact that speaks of the collar left it; null when none does. Facts oldest first. */
export function settingAfter(facts: readonly AnyFact[]): number | null {
  const last = facts.findLast((fact) => ['collarMove', 'lock', 'shot'].includes(fact.kind));
  if (last?.kind === 'collarMove') return last.body.to;
  if (last?.kind === 'lock' || last?.kind === 'shot') return last.body.setting;
  return null;
}

/** When the last bag went in, unless a shot was pulled since. */
export function newBagWaiting(facts: readonly AnyFact[]): number | null {
  const last = facts.findLast((fact) => fact.kind === 'newBag' || fact.kind === 'shot');
  return last?.kind === 'newBag' ? Date.parse(last.at) : null;
}

function heardShots(facts: readonly AnyFact[]): HeardShot[] {
  const heard: HeardShot[] = [];
  let purgedG = 0;
  for (const fact of facts) {
    if (fact.kind === 'purge') purgedG += fact.body.purgeG;
    if (fact.kind === 'collarMove') purgedG = 0;
    if (fact.kind !== 'shot') continue;
    const { setting, doseG, yieldG, timeS, firstDropS, flaw } = fact.body;
    const fault = flaw === null ? null : faultOfFlaw[flaw];
    heard.push({
      atMs: Date.parse(fact.at),
      setting,
      doseG,
      yieldG,
      timeS,
      firstDropS,
      purgedG,
      fault,
      group: fact.groupId,
    });
    purgedG = 0;
  }
  return heard;
}

/** Grams purged after the last shot or collar move. */
function purgedSince(facts: readonly AnyFact[]): number {
  const last = facts.findLastIndex((fact) => fact.kind === 'shot' || fact.kind === 'collarMove');
  return facts.slice(last + 1).reduce((sum, fact) => (fact.kind === 'purge' ? sum + fact.body.purgeG : sum), 0);
}

function gramsUsed(facts: readonly AnyFact[]): number {
  let grams = 0;
  let dosesWaiting = 0;
  for (const fact of facts) {
    if (fact.kind === 'purge') grams += fact.body.purgeG;
    if (fact.kind === 'dose') {
      grams += fact.body.doseG;
      dosesWaiting += 1;
    }
    if (fact.kind === 'shot') {
      // The dose of a shot was counted when it was weighed; a shot entered by hand brings its own.
      if (dosesWaiting === 0) grams += fact.body.doseG;
      dosesWaiting = 0;
    }
  }
  return grams;
}

/**
 * What the whole bar teaches the bench of one grinder: every shot of every grinder, but for those of this one since its
 * last lock, which the bench hears itself.
 * @param facts of all grinders, in any order, corrections included
 */
export function rememberedFor(
  grinderId: string,
  grinders: readonly GrinderInBar[],
  facts: readonly AnyFact[],
): Remembered | null {
  const grinder = grinders.find(({ id }) => id === grinderId);
  if (!grinder) return null;
  const standing = asCorrected(facts);
  const own = standing.filter((fact) => fact.grinderId === grinderId);
  const heardAtBench = new Set(
    own.slice(own.findLastIndex((fact) => fact.kind === 'lock') + 1).filter((fact) => !isCheck(fact)),
  );
  const bar = barFrom(
    grinders,
    standing.filter((fact) => fact.kind === 'newBag' || !heardAtBench.has(fact)),
  );
  return { bar, grinder: grinderId, reference: grinder.seedSetting };
}

/** What all shots taught about every grinder and every group; facts in any order, corrections included. */
export function rememberedBar(grinders: readonly GrinderInBar[], facts: readonly AnyFact[]): BarModel {
  return barFrom(grinders, asCorrected(facts));
}

function barFrom(grinders: readonly GrinderInBar[], standing: readonly AnyFact[]): BarModel {
  const bags = standing.flatMap((fact) =>
    fact.kind === 'newBag' ? [{ ...bagEvent(fact), grinderId: fact.grinderId }] : [],
  );
  const shots = grinders.flatMap(({ id }) =>
    heardShots(standing.filter((fact) => fact.grinderId === id)).map((shot): PastShot => ({
      ...shot,
      grinderId: id,
      atMs: shot.atMs ?? 0,
    })),
  );
  return rememberBar(
    grinders,
    shots.sort((a, b) => a.atMs - b.atMs),
    bags,
  );
}
