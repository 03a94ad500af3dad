import { normalisedTime, type RecipeTarget } from '../calibration/index.ts';
import {
  factsSince,
  factsWhere,
  ofGrinder,
  ofKind,
  stepsOf,
  type StandingFacts,
  type StepFact,
  type StepOf,
} from '../facts/index.ts';

/** What changed at one grinder since a moment. */
export interface StationChanges {
  grinderId: string;
  /** Where the collar stood then and stands now; null where it did not move. */
  moved: { from: number; to: number; times: number } | null;
  /** Times of shots that were timed or pulled there, normalised, s, oldest first. */
  timesS: number[];
  /** Bags that went in. */
  bags: number;
  /** Whether a look is put off, and nobody has looked since. */
  putOff: boolean;
}

/** What changed at each of these grinders since a moment, for whoever comes on. */
export function stationChanges(
  facts: StandingFacts,
  grinderIds: readonly string[],
  sinceMs: number,
  recipeOf: (recipeVersionId: string) => RecipeTarget | null,
): StationChanges[] {
  const since = factsSince(facts, sinceMs);
  return grinderIds.map((grinderId) => {
    const own = ofGrinder(since, grinderId);
    const moves = ofKind(own, 'collarMove');
    const [first] = moves;
    const last = moves.at(-1);
    const shots = ofKind(own, 'shot').filter(({ body }) => body.flaw === null);
    const putOff = stepsOf(since, 'putOff').findLast(({ body }) => body.grinderId === grinderId);
    return {
      grinderId,
      moved:
        first && last && first.body.from !== last.body.to
          ? { from: first.body.from, to: last.body.to, times: moves.length }
          : null,
      timesS: shots.flatMap(({ body }) => {
        const recipe = recipeOf(body.recipeVersionId);
        return recipe ? [normalisedTime(body, recipe).normalisedS] : [];
      }),
      bags: ofKind(own, 'newBag').length,
      putOff: putOff !== undefined && !shots.some(({ at }) => at > putOff.at),
    };
  });
}

/** When somebody was last at the bar before now, by their own entries, ms since the epoch; null where nothing tells. */
export function lastOnMs(facts: StandingFacts, personId: string): number | null {
  const last = factsWhere(facts, (fact) => fact.personId === personId).at(-1);
  return last ? Date.parse(last.at) : null;
}

/** Notes that nobody has called done, oldest first. */
export function openNotes(facts: StandingFacts): StepFact<StepOf<'note'>>[] {
  const done = new Set(stepsOf(facts, 'noteDone').map(({ body }) => body.noteId));
  return stepsOf(facts, 'note').filter(({ id }) => !done.has(id));
}

/** The hand-over that was left last, as long as nobody has taken it over; null where none waits. */
export function waitingHandOver(facts: StandingFacts): StepFact<StepOf<'handedOver'>> | null {
  const last = stepsOf(facts, 'handedOver').at(-1);
  if (!last) return null;
  return stepsOf(facts, 'takenOver').some(({ body }) => body.handedOverId === last.id) ? null : last;
}
