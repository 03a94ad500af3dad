/**
 * The schools of the house book that are about how shots are made and judged, beside those that the engine itself
 * follows. Each list begins with our default.
 */
export const endings = ['yield', 'time', 'volume', 'eye'] as const;
export const yieldReads = ['scale', 'glass', 'volume', 'eye'] as const;
export const tornWays = ['yieldFirst', 'both'] as const;
export const tasteLevers = ['yield', 'grind', 'dose', 'temperature'] as const;
export const dosings = ['timed', 'weighed', 'levelled', 'line', 'eye'] as const;
export const burrRules = ['finer', 'always'] as const;
export const firstGuesses = ['texture', 'middle', 'finest', 'maker'] as const;
export const purgeCounts = ['grams', 'seconds', 'portafilters', 'doses'] as const;
export const doseProofs = ['dialling', 'meanOfThree'] as const;
export const tastings = ['whenNumbersFit', 'second', 'every'] as const;
export const puckWays = ['ignored', 'noted'] as const;

/** When a dose is weighed in service, where the grinder doses by time. */
export const doseChecks = ['computed', 'quarterHour', 'twentyDrinks', 'never'] as const;

/** Where somebody works at what no head has signed them off for. */
export const aloneRules = ['said', 'asked'] as const;

export const lessDoses = ['lessSour', 'lessBitter'] as const;

export type TasteLever = (typeof tasteLevers)[number];

export interface ServicePolicy {
  /** What ends the shot. */
  endsShot: (typeof endings)[number];
  /** How the yield is read. */
  yieldBy: (typeof yieldReads)[number];
  /** What goes when time and yield cannot both be met. */
  whenTorn: (typeof tornWays)[number];
  /** What is changed first when the numbers fit and the taste does not. */
  tasteLever: TasteLever;
  /** What less coffee does to a cup, as this house finds. */
  lessDose: (typeof lessDoses)[number];
  dosing: (typeof dosings)[number];
  /** What proves a grind time once the grinder is locked: the doses weighed on the way, or three of their own. */
  doseProof: (typeof doseProofs)[number];
  doseCheck: (typeof doseChecks)[number];
  /** Which shots are tasted while dialling in. */
  tastes: (typeof tastings)[number];
  puck: (typeof puckWays)[number];
  /** For which moves of the collar the burrs run. */
  burrsRun: (typeof burrRules)[number];
  /** Where a grinder begins that nobody has dialled in. */
  firstGuess: (typeof firstGuesses)[number];
  /** How a purge is counted. */
  purgeCount: (typeof purgeCounts)[number];
  /** Whether the lock of somebody who is not signed off for it is only said, or asks for a second person's PIN. */
  alone: (typeof aloneRules)[number];
}

export const usualServicePolicy: ServicePolicy = {
  endsShot: 'yield',
  whenTorn: 'yieldFirst',
  tasteLever: 'yield',
  lessDose: 'lessSour',
  dosing: 'timed',
  doseProof: 'dialling',
  doseCheck: 'computed',
  tastes: 'whenNumbersFit',
  puck: 'ignored',
  yieldBy: 'scale',
  burrsRun: 'finer',
  firstGuess: 'texture',
  purgeCount: 'grams',
  alone: 'said',
};

interface AimedAt {
  yieldG: number;
  yieldToleranceG: number;
  timeMinS: number;
  timeMaxS: number;
}

interface PulledShot {
  yieldG: number;
  timeS: number;
}

/** Where time may float: a tenth of the window's middle beyond either edge (handbook: inside limits). */
const FLOAT_SHARE = 0.1;

const inYield = ({ yieldG }: PulledShot, recipe: AimedAt): boolean =>
  Math.abs(yieldG - recipe.yieldG) <= recipe.yieldToleranceG;

const inTime = ({ timeS }: PulledShot, { timeMinS, timeMaxS }: AimedAt, floatS = 0): boolean =>
  timeS >= timeMinS - floatS && timeS <= timeMaxS + floatS;

/** Whether the house serves this shot. Yield first: a right yield is served although time floats, inside limits. */
export function servesIt(ways: Pick<ServicePolicy, 'whenTorn'>, shot: PulledShot, recipe: AimedAt): boolean {
  if (!inYield(shot, recipe)) return false;
  const floatS = ways.whenTorn === 'both' ? 0 : (FLOAT_SHARE * (recipe.timeMinS + recipe.timeMaxS)) / 2;
  return inTime(shot, recipe, floatS);
}

/** Whether the house tastes this one of the shots since the last lock; `number` counts from one. */
export function tastesIt(
  ways: Pick<ServicePolicy, 'tastes'>,
  shot: PulledShot,
  recipe: AimedAt,
  number: number,
): boolean {
  if (ways.tastes === 'every') return true;
  return ways.tastes === 'second' ? number >= 2 : inYield(shot, recipe) && inTime(shot, recipe);
}

/** How the house ends a shot, in numbers for the bench. */
export function endOfShot(
  ways: Pick<ServicePolicy, 'endsShot'>,
  recipe: AimedAt,
  afterDripG: number,
): { by: 'yield'; atG: number } | { by: 'time'; atS: number } | { by: 'volume' } | { by: 'eye' } {
  if (ways.endsShot === 'time') return { by: 'time', atS: (recipe.timeMinS + recipe.timeMaxS) / 2 };
  if (ways.endsShot === 'volume' || ways.endsShot === 'eye') return { by: ways.endsShot };
  return { by: 'yield', atG: recipe.yieldG - afterDripG };
}
