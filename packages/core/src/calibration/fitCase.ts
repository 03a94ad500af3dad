import type { AdviceCase, FilteredBefore } from './adviceCase.ts';
import { drift, knownOf, levelOf, newBar, responseOf, withGrinder, withGroup, type BarModel } from './barModel.ts';
import { HOURS_PER_DAY } from '../numbers/index.ts';
import { marksFiner } from './dial.ts';
import { emptyChute } from './chute.ts';
import { engineDefaults } from './engineDefaults.ts';
import { priorOf, varianceSince } from './grinderPrior.ts';
import { filterCase, caseWeights } from './filterCase.ts';
import type { CaseFit } from './caseFit.ts';
import { WEIGHING_ROUNDS } from './observations.ts';
import { lineOf, type ResponseLine } from './responseLine.ts';

/** A case speaks of one grinder; where no bar is remembered it needs no name. */
const THIS_GRINDER = 'this';

/**
 * Hears a case's shots: where the grinder stands, what a mark is worth, and how sure both are. Shots are heard one by
 * one, then weighed again by what all the others say, since a channel in the first shot shows only later. Those that the
 * remembered bar has heard already are not heard again.
 * Marks count from where it last held, or else from where the first shot was pulled.
 */
export function fitCase(input: AdviceCase, from: number): CaseFit {
  const { remembered, shots } = input;
  const reference = remembered?.reference ?? input.held?.setting ?? shots[0]?.setting ?? from;
  const station = { grinder: remembered?.grinder ?? THIS_GRINDER, coffee: remembered?.coffee ?? null };
  const known: FilteredBefore | null = remembered?.heard ?? null;
  const already = known?.outcomes ?? [];
  const start = startingBar(input, { ...station, reference });
  const responseFloor = engineDefaults.responseFloorShare * (knownOf(start, responseOf(station.grinder))?.mean ?? 0);
  const group = shots.at(-1)?.group ?? input.group ?? null;
  // Whoever pulled the last one is taken to pull the next.
  const by = shots.at(-1)?.by ?? input.by ?? null;
  // What was measured last is how the next will be.
  const measured = shots.length > 0 ? shots.at(-1)?.measured : input.measured;
  const unheard = already.length === 0 ? input : { ...input, shots: shots.slice(already.length) };
  const chute = known?.chute ?? emptyChute;

  let hearing = filterCase(unheard, start, { ...station, reference }, null, chute);
  for (let round = 0; round < WEIGHING_ROUNDS; round += 1) {
    const weights = caseWeights(hearing);
    if (weights === null) break;
    hearing = filterCase(unheard, start, { ...station, reference }, weights, chute);
  }
  const lineIn = (bar: BarModel): ResponseLine => lineOf(bar, station, group, responseFloor, by, measured);
  const isAsBefore = known !== null && already.length > 0 && unheard.shots.length === 0;
  // A coffee that went in after the last shot was not there before it.
  const knewCoffee = isAsBefore && knownOf(known.before, levelOf(station.grinder, station.coffee)) !== null;
  const before = knewCoffee ? withGroups(known.before, input) : hearing.before;
  return {
    line: lineIn(hearing.bar),
    before: lineIn(before),
    bar: hearing.bar,
    reference,
    heard: [...already, ...hearing.heard],
  };
}

const withGroups = (bar: BarModel, { shots, group }: AdviceCase): BarModel =>
  [...new Set([...shots.flatMap((shot) => shot.group ?? []), ...(group == null ? [] : [group])])].reduce(
    withGroup,
    bar,
  );

function startingBar(
  input: AdviceCase,
  { grinder, coffee, reference }: { grinder: string; coffee: string | null; reference: number },
): BarModel {
  const { since, held, remembered } = input;
  const felt = input.felt
    ? { x: marksFiner(input.dial, input.felt.setting, reference), texture: input.felt.texture }
    : null;
  const isKnown = remembered !== null && knownOf(remembered.bar, levelOf(grinder, coffee)) !== null;
  if (!isKnown) {
    // A bar that remembers the grinder but not this coffee on it: where it held with another says nothing of its level.
    const prior = remembered?.heard ? priorOf(input, null, null, felt) : priorOf(input, since, held, felt);
    return withGroups(withGrinder(remembered?.bar ?? newBar(), grinder, prior, coffee), input);
  }
  const { bar, heard } = remembered;
  return withGroups(heard ? bar : overTime(bar, grinder, since), input);
}

/** The remembered bar since then: its level has wandered, and what a mark is worth a little too. */
function overTime(bar: BarModel, grinder: string, since: AdviceCase['since']): BarModel {
  const d = engineDefaults;
  const days = (since?.hours ?? 0) / HOURS_PER_DAY;
  const relativeVariance = d.responseSdPerRootDay ** 2 * days + (since?.newBag ? d.responseNewBagSd ** 2 : 0);
  return drift(bar, grinder, varianceSince(since), relativeVariance);
}
