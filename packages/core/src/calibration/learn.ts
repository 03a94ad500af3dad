import { HOURS_PER_DAY } from '../numbers/index.ts';
import type { AdviceCase } from './adviceCase.ts';
import { drift, knownOf, levelOf, newBar, responseOf, withGrinder, withGroup, type BarModel } from './barModel.ts';
import { engineDefaults } from './engineDefaults.ts';
import { priorOf, varianceSince } from './grinderPrior.ts';
import { hearCase, reweigh } from './hearCase.ts';
import type { Learned } from './learned.ts';
import { lineOf, type ResponseLine } from './responseLine.ts';

/** A case speaks of one grinder; where no bar is remembered it needs no name. */
const THIS_GRINDER = 'this';
/** Shots are weighed again by all the others this often at most; the weights settle in two or three rounds. */
const ROUNDS = 3;

/**
 * Hears a case's shots: where the grinder stands, what a mark is worth, and how sure both are. Shots are heard one by
 * one, then weighed again by what all the others say, since a channel in the first shot shows only later.
 * Marks count from where it last held, or else from where the first shot was pulled.
 */
export function learn(input: AdviceCase, from: number): Learned {
  const { remembered, shots } = input;
  const reference = remembered?.reference ?? input.held?.setting ?? shots[0]?.setting ?? from;
  const grinder = remembered?.grinder ?? THIS_GRINDER;
  const start = startingBar(input, grinder);
  const responseFloor = engineDefaults.responseFloorShare * (knownOf(start, responseOf(grinder))?.mean ?? 0);
  const group = shots.at(-1)?.group ?? null;

  let hearing = hearCase(input, start, { grinder, reference }, null);
  for (let round = 0; round < ROUNDS; round += 1) {
    const weights = reweigh(hearing);
    if (weights === null) break;
    hearing = hearCase(input, start, { grinder, reference }, weights);
  }
  const lineIn = (bar: BarModel): ResponseLine => lineOf(bar, grinder, group, responseFloor);
  return {
    line: lineIn(hearing.bar),
    before: lineIn(hearing.before),
    bar: hearing.bar,
    reference,
    heard: hearing.heard,
  };
}

function startingBar(input: AdviceCase, grinder: string): BarModel {
  const { since, held, remembered, shots } = input;
  const bar = remembered && knownOf(remembered.bar, levelOf(grinder)) ? overTime(remembered.bar, grinder, since) : null;
  const known = bar ?? withGrinder(remembered?.bar ?? newBar(), grinder, priorOf(input, since, held?.timeS ?? null));
  return [...new Set(shots.flatMap((shot) => shot.group ?? []))].reduce(withGroup, known);
}

/** The remembered bar since then: its level has wandered, and what a mark is worth a little too. */
function overTime(bar: BarModel, grinder: string, since: AdviceCase['since']): BarModel {
  const d = engineDefaults;
  const days = (since?.hours ?? 0) / HOURS_PER_DAY;
  const relativeVariance = d.responseSdPerRootDay ** 2 * days + (since?.newBag ? d.responseNewBagSd ** 2 : 0);
  return drift(bar, grinder, varianceSince(since), relativeVariance);
}
