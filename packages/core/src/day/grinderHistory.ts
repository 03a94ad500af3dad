import { normalisedTime, windowMiddleS, type RecipeTarget } from '../calibration/index.ts';
import { ofGrinder, stepsOf, type Happening, type StandingFact, type StandingFacts } from '../facts/index.ts';
import { FLOAT_DUST, usual } from '../numbers/index.ts';
import { splitVariance, type VarianceSplit } from './varianceSplit.ts';

/** One shot on the chart. */
interface HistoryShot {
  factId: string;
  atMs: number;
  day: string;
  /** Normalised time, s, and the window that it was meant for. */
  timeS: number;
  lowS: number;
  highS: number;
  inside: boolean;
  setting: number;
  personId: string;
  groupId: string | null;
  /** Timed in service, or pulled while dialling in. */
  service: boolean;
}

/** One dose on the scale. */
interface HistoryDose {
  factId: string;
  atMs: number;
  day: string;
  doseG: number;
  /** What it was meant to be, g, and how much either way is inside. */
  aimG: number;
  toleranceG: number;
  inside: boolean;
}

/** What the chart marks between shots. */
interface HistoryMark {
  atMs: number;
  what: 'move' | 'bag' | Happening;
  /** Dial numbers of a move. */
  from: number | null;
  to: number | null;
}

/** What a grinder's shots say of the time since. */
export interface GrinderHistory {
  shots: HistoryShot[];
  marks: HistoryMark[];
  doses: HistoryDose[];
  /** Of the shots timed in service. */
  capability: { inside: number; of: number };
  split: VarianceSplit | null;
}

const NO_FAULT = null;

/**
 * A grinder over a stretch of time: its sound shots, what happened between them, what share of the timed ones was inside, and
 * where their spread comes from.
 * @param recipeOf what a recipe version aimed at @param dayOf the business day of a moment
 */
export function grinderHistory(
  facts: StandingFacts,
  grinderId: string,
  recipeOf: (recipeVersionId: string) => RecipeTarget | null,
  dayOf: (atMs: number) => string,
): GrinderHistory {
  const own = ofGrinder(facts, grinderId);
  const shots = own.flatMap((fact) => shotOf(fact, recipeOf, dayOf));
  const timed = shots.filter(({ service }) => service);
  return {
    shots,
    doses: dosesOf(own, recipeOf, dayOf),
    marks: [...own.flatMap(markOf), ...happeningsOf(facts, grinderId)].toSorted((a, b) => a.atMs - b.atMs),
    capability: { inside: timed.filter(({ inside }) => inside).length, of: timed.length },
    split: splitVariance(
      timed.map((shot) => ({
        ln: Math.log(shot.timeS / windowMiddleS({ min: shot.lowS, max: shot.highS })),
        stretch: `${shot.day} ${shot.setting}`,
        personId: shot.personId,
      })),
    ),
  };
}

function shotOf(
  fact: StandingFact,
  recipeOf: (recipeVersionId: string) => RecipeTarget | null,
  dayOf: (atMs: number) => string,
): HistoryShot[] {
  if (fact.kind !== 'shot' || fact.body.flaw !== NO_FAULT) return [];
  const recipe = recipeOf(fact.body.recipeVersionId);
  if (!recipe) return [];
  const atMs = Date.parse(fact.at);
  const timeS = normalisedTime(fact.body, recipe).normalisedS;
  const { min: lowS, max: highS } = recipe.timeS;
  return [
    {
      factId: fact.id,
      atMs,
      day: dayOf(atMs),
      timeS,
      lowS,
      highS,
      inside: timeS >= lowS && timeS <= highS,
      setting: fact.body.setting,
      personId: fact.personId,
      groupId: fact.groupId,
      service: fact.body.service === true,
    },
  ];
}

/** Doses that were weighed, each against the nearest of the recipes that were locked when it was ground. */
function dosesOf(
  own: readonly StandingFact[],
  recipeOf: (recipeVersionId: string) => RecipeTarget | null,
  dayOf: (atMs: number) => string,
): HistoryDose[] {
  const recipesOf = (fact: StandingFact): string[] =>
    fact.kind === 'lock'
      ? [fact.body.recipeVersionId, ...(fact.body.otherDoses ?? []).map(({ recipeVersionId }) => recipeVersionId)]
      : fact.kind === 'shot'
        ? [fact.body.recipeVersionId]
        : [];
  // Before the first lock: what the first shot was meant for.
  let meant = own.map(recipesOf).find(({ length }) => length > 0) ?? [];
  return own.flatMap((fact): HistoryDose[] => {
    if (fact.kind === 'lock') meant = recipesOf(fact);
    if (fact.kind !== 'dose' || (fact.body.way ?? 'scale') !== 'scale') return [];
    const { doseG } = fact.body;
    const recipes = meant.flatMap((id) => recipeOf(id) ?? []);
    const [recipe] = recipes.toSorted((a, b) => Math.abs(a.doseG - doseG) - Math.abs(b.doseG - doseG));
    if (!recipe) return [];
    const toleranceG = recipe.doseToleranceG ?? usual.doseToleranceG;
    const atMs = Date.parse(fact.at);
    const inside = Math.abs(doseG - recipe.doseG) <= toleranceG + FLOAT_DUST;
    return [{ factId: fact.id, atMs, day: dayOf(atMs), doseG, aimG: recipe.doseG, toleranceG, inside }];
  });
}

function markOf(fact: StandingFact): HistoryMark[] {
  const atMs = Date.parse(fact.at);
  if (fact.kind === 'newBag') return [{ atMs, what: 'bag', from: null, to: null }];
  return fact.kind === 'collarMove' ? [{ atMs, what: 'move', from: fact.body.from, to: fact.body.to }] : [];
}

const happeningsOf = (facts: StandingFacts, grinderId: string): HistoryMark[] =>
  stepsOf(facts, 'happened')
    .filter(({ body }) => body.grinderId === null || body.grinderId === grinderId)
    .map(({ at, body }) => ({ atMs: Date.parse(at), what: body.what, from: null, to: null }));
