import {
  factsAfter,
  factsWhere,
  isOfOneTap,
  ofGrinder,
  ofKind,
  stepsOf,
  type DoseBody,
  type FactOf,
  type StandingFact,
  type StandingFacts,
  type StepFact,
} from '../facts/index.ts';
import type { ServicePolicy } from '../house/index.ts';
import { MS_PER_HOUR } from '../numbers/index.ts';
import type { AdviceCase, CaseShot, HouseEvent, DecisionPolicy, RecipeTarget } from './adviceCase.ts';
import { cleanSetting, marksFiner, mostStepsOf, type Dial } from './dial.ts';
import { isTexture, type Felt } from './texture.ts';
import { grindTimeForS, type WeighedDose } from './doseTime.ts';
import { caseShotOf } from './caseShot.ts';
import { aimChange } from './grinderSet.ts';
import type { BarMemory } from './memoryState.ts';
import { nothingPassed, passedBy } from './passing.ts';
import { remember } from './recall.ts';
import { windowMiddleS } from './windowMiddle.ts';
import { collarStandsAt, lastLock, isCheck, isGroupCheck, newBagWaitsSinceMs, sinceLastLock } from './stands.ts';

/** A grinder as its bench needs it. */
export interface BenchGrinder {
  id: string;
  dial: Dial;
  secondsPerMark: number | null;
  retentionG: number | null;
  /** Where the collar stood before the first recorded fact. */
  seedSetting: number;
  /** Versions of the coffee's other recipes: their shots teach, and are no shots of this bench; absent: there are none. */
  otherRecipes?: ReadonlySet<string>;
  /** Known causes beside the grind; absent: none. */
  besides?: AdviceCase['besides'];
}

/** A grinder's calibration as its facts tell it. */
export interface BenchState {
  /** Where the collar stands. */
  setting: number;
  lastLock: FactOf<'lock'> | null;
  /** Shots of this recipe, oldest first, since the last lock. */
  shots: FactOf<'shot'>[];
  /** When another bag went in since the last lock, and nobody pulled a shot of it yet; null otherwise. */
  newBagAtMs: number | null;
  /** When taste changed what is aimed at, and nothing was poured so yet, ms since the epoch. */
  aimChangedAtMs: number | null;
  /** The next fitting grind time for the recipe's dose at this setting; null when none was weighed. */
  grindTimeS(doseG: number, setting: number): number | null;
  adviceCase: AdviceCase;
  /** The same with the guests' shots that were timed since the lock: what the day is steered by. */
  serviceCase(): AdviceCase;
}

/**
 * Folds what stands into where a grinder's calibration stands at `nowMs`.
 * @param facts of this grinder and of the bar; others are passed over
 * @param memory what the whole bar has taught, these facts included; null: nothing but this case
 */
export function benchState(
  facts: StandingFacts,
  grinder: BenchGrinder,
  recipe: RecipeTarget,
  house: DecisionPolicy & { firstGuess?: ServicePolicy['firstGuess'] },
  nowMs: number,
  memory: BarMemory | null,
): BenchState {
  const own = ofGrinder(facts, grinder.id);
  const lock = lastLock(own);
  const since = sinceLastLock(own);
  const setting = collarStandsAt(own) ?? grinder.seedSetting;
  const isOthers = ({ recipeVersionId }: { recipeVersionId: string }): boolean =>
    grinder.otherRecipes?.has(recipeVersionId) ?? false;
  const shots = ofKind(since, 'shot').filter(({ body }) => !isOthers(body));
  const beganMs = shots[0] ? Date.parse(shots[0].at) : nowMs;
  const bags = ofKind(since, 'newBag').map(bagEvent);
  // The doses of the opening's own step went through it too.
  const heardOf = (counts: (fact: StandingFact) => boolean) =>
    heardShots(factsWhere(factsAfter(facts, lock), counts), grinder.id, isOthers);
  const rememberedWith = (theirs: readonly FactOf<'shot'>[]) =>
    memory && remember(memory, grinder.id, recipe, theirs, nowMs);
  const beforeFirst = bags.filter(({ atMs }) => atMs <= beganMs);

  const changed = aimChange(facts, grinder.id);
  // Across a lock too: the same facts say the same.
  const lastPulled = ofKind(own, 'shot').findLast((shot) => !isCheck(shot));
  // A lock for another recipe says where the collar holds, and nothing of this one's seconds.
  const heldS = lock && (isOthers(lock.body) ? windowMiddleS(recipe.timeS) : lock.body.expected.timeS);

  const adviceCase: AdviceCase = {
    recipe,
    dial: cappedDial(grinder.dial, house),
    secondsPerMark: grinder.secondsPerMark,
    retentionG: grinder.retentionG,
    house,
    since: lock && {
      newBag: beforeFirst.length > 0,
      newCoffee: beforeFirst.some(({ kind }) => kind === 'newCoffee'),
      hours: Math.max(0, (beganMs - Date.parse(lock.at)) / MS_PER_HOUR),
    },
    held: lock && heldS !== null ? { setting: lock.body.setting, timeS: heldS } : null,
    remembered: rememberedWith(shots),
    habit: memory?.grinders[grinder.id]?.habit ?? null,
    trimG: lock ? (setDoseG(facts, grinder.id, lock, isOthers) ?? recipe.doseG) - recipe.doseG : 0,
    nowMs,
    events: bags,
    ...heardOf((fact) => !isCheck(fact)),
    earlier: lock && bags.length === 0 ? earlierShots(own, lock, setting, isOthers) : [],
    group: lastPulled?.groupId ?? null,
    by: lastPulled?.personId ?? null,
    ...(lastPulled?.body.measured ? { measured: lastPulled.body.measured } : {}),
    felt: lock === null && shots.length === 0 ? feltOf(own) : null,
    startAt: lock === null && own.length === 0 ? startOf(grinder.dial, house.firstGuess) : null,
    besides: grinder.besides ?? [],
    ...(isUntried(own, changed) ? { untried: true } : {}),
    standsAt: setting,
  };

  return {
    setting,
    lastLock: lock,
    shots,
    newBagAtMs: newBagWaitsSinceMs(own),
    aimChangedAtMs: changed && Date.parse(changed.at),
    grindTimeS: (doseG, atSetting) => {
      const xAt = (where: number): number => marksFiner(grinder.dial, where, setting);
      const doses = timedDoses(facts, grinder).map((dose) => ({ ...dose, x: xAt(dose.setting) }));
      return grindTimeForS(doses, doseG, xAt(atSetting));
    },
    adviceCase,
    serviceCase: () => {
      const guests = ofKind(factsAfter(own, lock), 'shot').filter(
        (shot) => !isGroupCheck(shot) && !isOthers(shot.body),
      );
      const heard = heardOf((fact) => !isGroupCheck(fact));
      return { ...adviceCase, ...heard, remembered: rememberedWith(guests) };
    },
  };
}

/**
 * Whether what taste changed still waits for its shot, and nobody has turned the collar elsewhere since.
 * @param changed the change that no shot has shown yet
 */
function isUntried(own: StandingFacts, changed: StepFact | null): boolean {
  const moved = ofKind(own, 'collarMove').at(-1);
  // The turn that carries a change out is written with it.
  return changed !== null && (!moved || moved.at < changed.at || isOfOneTap(changed, moved));
}

/** The dose that holds beside the recipe's: set since the lock, or locked; null: the recipe's, or what taste made of it since. */
function setDoseG(
  facts: StandingFacts,
  grinderId: string,
  lock: FactOf<'lock'> | null,
  isOthers: (lock: FactOf<'lock'>['body']) => boolean,
): number | null {
  const tasted =
    stepsOf(factsAfter(facts, lock), 'tasteSettled').findLast(
      ({ body }) => body.grinderId === grinderId && body.change?.lever === 'dose',
    ) ?? null;
  const set = stepsOf(factsAfter(facts, tasted ?? lock), 'doseSet').findLast(
    ({ body }) => body.grinderId === grinderId,
  );
  if (set) return set.body.doseG;
  if (tasted) return null;
  return lock?.body.doseG === undefined || isOthers(lock.body) ? null : lock.body.doseG;
}

/** No further at once than the house turns. */
function cappedDial(dial: Dial, { moveCap = 'computed' }: DecisionPolicy): Dial {
  if (moveCap === 'computed') return dial;
  return { ...dial, mostSteps: Math.min(mostStepsOf(dial), moveCap === 'three' ? 3 : 1) };
}

/** How the grounds felt last, before any shot. */
function feltOf(own: StandingFacts): Felt | null {
  const last = ofKind(own, 'seen').findLast(({ body }) => isTexture(body.sign));
  return last && isTexture(last.body.sign) ? { setting: last.body.setting, texture: last.body.sign } : null;
}

/** Where the house begins with a grinder of which nothing is known. */
function startOf({ range, finer, stepMarks }: Dial, guess: ServicePolicy['firstGuess'] | undefined): number | null {
  if (range === null || (guess !== 'middle' && guess !== 'finest')) return null;
  if (guess === 'finest') return finer === 'down' ? range.min : range.max;
  return cleanSetting(Math.round((range.min + range.max) / 2 / stepMarks) * stepMarks);
}

/**
 * Every dose that was ground by time and weighed, at the bench or at the opening's own step, oldest first, with where the
 * collar stood.
 */
function timedDoses(facts: StandingFacts, grinder: BenchGrinder) {
  const doses: TimedDose[] = [];
  let setting = grinder.seedSetting;
  let beans: WeighedDose['beans'];
  const add = (of: Omit<TimedDose, 'beans'>): void => {
    doses.push({ ...of, ...(beans === undefined ? {} : { beans }) });
    beans = undefined;
  };
  for (const fact of facts) {
    const atMs = Date.parse(fact.at);
    if (fact.kind === 'step') {
      if (fact.body.step !== 'doseTime' || fact.body.grinderId !== grinder.id) continue;
      const { grindTimeS, dosesG } = fact.body;
      if (grindTimeS !== null) for (const doseG of dosesG) add({ grindTimeS, doseG, setting, atMs });
      continue;
    }
    if (fact.grinderId !== grinder.id) continue;
    if (fact.kind === 'collarMove') setting = fact.body.to;
    if (fact.kind === 'lock' || fact.kind === 'shot') ({ setting } = fact.body);
    if (fact.kind === 'newBag') beans = beans === 'newCoffee' || fact.body.otherCoffee ? 'newCoffee' : 'newBag';
    if (fact.kind === 'dose') for (const dose of timedDose(fact.body)) add({ ...dose, atMs });
  }
  return doses;
}

type TimedDose = Omit<WeighedDose, 'x'> & { setting: number };

/** What a weighed dose says of the timer: where a second go topped it up, the first part; where nobody weighed it, nothing. */
function timedDose({ grindTimeS, doseG, firstPartG, setting, way = 'scale' }: DoseBody) {
  if (grindTimeS === null || way !== 'scale') return [];
  return [{ grindTimeS, doseG: firstPartG ?? doseG, setting }];
}

/** A bag as the engine hears it. */
function bagEvent({ at, body }: FactOf<'newBag'>): HouseEvent {
  return { atMs: Date.parse(at), kind: body.otherCoffee ? 'newCoffee' : 'newBag' };
}

/** The shots at the setting that was locked, back to when the collar came there or another bag went in. */
function earlierShots(
  own: StandingFacts,
  lock: FactOf<'lock'>,
  setting: number,
  isOthers: (shot: FactOf<'shot'>['body']) => boolean,
): CaseShot[] {
  const before = own.slice(
    0,
    own.findIndex(({ id }) => id === lock.id),
  );
  const began = before.findLastIndex(
    (fact) =>
      fact.kind === 'collarMove' || fact.kind === 'newBag' || (fact.kind === 'shot' && fact.body.setting !== setting),
  );
  return before
    .slice(began + 1)
    .flatMap((fact) =>
      fact.kind === 'shot' && !isCheck(fact) && !isOthers(fact.body) ? [caseShotOf(fact, ALL_PURGED)] : [],
    );
}

/** A lock says that what was ground was ground at its setting. */
const ALL_PURGED = Infinity;

/** The shots of a case as the engine hears them, and what has passed through the grinder since. */
function heardShots(
  facts: StandingFacts,
  grinderId: string,
  isOthers: (shot: FactOf<'shot'>['body']) => boolean,
): { shots: CaseShot[]; purgedG: number } {
  const shots: CaseShot[] = [];
  let passing = nothingPassed;
  for (const fact of facts) {
    if (fact.kind === 'shot' && fact.grinderId === grinderId && !isOthers(fact.body)) {
      shots.push(caseShotOf(fact, passing.purgedG));
    }
    passing = passedBy(passing, fact, grinderId);
  }
  return { shots, purgedG: passing.purgedG };
}
