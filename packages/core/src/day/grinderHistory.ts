import { normalisedTime, windowMiddleS, type RecipeTarget } from '../calibration/index.ts';
import { ofGrinder, stepsOf, type Happening, type StandingFact, type StandingFacts } from '../facts/index.ts';
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

function markOf(fact: StandingFact): HistoryMark[] {
  const atMs = Date.parse(fact.at);
  if (fact.kind === 'newBag') return [{ atMs, what: 'bag', from: null, to: null }];
  return fact.kind === 'collarMove' ? [{ atMs, what: 'move', from: fact.body.from, to: fact.body.to }] : [];
}

const happeningsOf = (facts: StandingFacts, grinderId: string): HistoryMark[] =>
  stepsOf(facts, 'happened')
    .filter(({ body }) => body.grinderId === null || body.grinderId === grinderId)
    .map(({ at, body }) => ({ atMs: Date.parse(at), what: body.what, from: null, to: null }));
