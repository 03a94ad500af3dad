import { usual } from '@tempera/core/numbers';
import type { HousePolicy } from '@tempera/contract/policy';
import { endOfShot, servesIt, shownSpan, tastesIt } from '@tempera/core/house';
import { judgeTaste, leverEffects, untasted, type TasteAim, type TasteChange } from '@tempera/core/taste';
import { grams, marks, seconds } from '../kernel/format.ts';
import { unitsNow } from '../kernel/units.ts';

interface AimedAt {
  doseG: number;
  yieldG: number;
  yieldToleranceG: number;
  timeMinS: number;
  timeMaxS: number;
}

/** How the house stops a shot, as the bench says it. */
export function stopWord(policy: Pick<HousePolicy, 'endsShot'>, recipe: AimedAt, dripG: number = usual.dripG): string {
  const end = endOfShot(policy, recipe, dripG);
  if (end.by === 'yield') return `Stop at ${grams(end.atG)}: the last drops make ${grams(recipe.yieldG)}`;
  if (end.by === 'eye') return 'Stop where the stream turns pale';
  return end.by === 'time' ? `Stop at ${seconds(end.atS)}, then weigh` : 'The machine stops it, then weigh';
}

/** What the house does with a shot once it is in the cup. */
export function houseAsks(
  policy: Pick<HousePolicy, 'whenTorn' | 'tastes' | 'puck'>,
  shot: { yieldG: number; timeS: number },
  recipe: AimedAt,
  number: number,
): string[] {
  return [
    servesIt(policy, shot, recipe) ? 'May be served' : 'Not to be served',
    ...(tastesIt(policy, shot, recipe, number) ? ['taste it'] : []),
    ...(policy.puck === 'noted' ? ['look at the puck'] : []),
  ];
}

/** How the house measures a dose while it serves. */
export function doseWord({ dosing }: Pick<HousePolicy, 'dosing'>, recipe: { doseG: number }): string {
  switch (dosing) {
    case 'timed':
      return 'Ground by time, a dose weighed now and then';
    case 'weighed':
      return `Every dose weighed to ${grams(recipe.doseG)}`;
    case 'levelled':
      return 'Settled and struck level, a few weighed';
    case 'line':
      return 'Filled to the line in the basket';
    case 'eye':
      return 'By eye';
  }
}

/** "a degree", "1.8 degrees": by how much, as this person reads it. */
function degreesWord(byC: number): string {
  const by = Number(shownSpan('temperature', byC, unitsNow()).toFixed(1));
  return by === 1 ? 'a degree' : `${by} degrees`;
}

const leverWord: Record<TasteChange['lever'], (by: number, yieldG: number) => string> = {
  yield: (by, yieldG) => `Stop at ${grams(yieldG * (1 + by))} instead of ${grams(yieldG)}`,
  grind: (by) => `${Math.abs(by) === 1 ? 'One mark' : marks(Math.abs(by))} ${by > 0 ? 'finer' : 'coarser'}`,
  dose: (by) => `${grams(Math.abs(by))} ${by > 0 ? 'more' : 'less'} coffee`,
  temperature: (by) => `The water ${degreesWord(Math.abs(by))} ${by > 0 ? 'hotter' : 'cooler'}`,
};

/** A change for taste, as the bar says it; `by` of the grind in marks of the dial. */
export const changeWord = (lever: TasteChange['lever'], by: number, yieldG: number): string =>
  leverWord[lever](by, yieldG);

/** The one change for a cup that tastes sour. */
export function sourWord(policy: Pick<HousePolicy, 'tasteLever' | 'lessDose'>, aim: TasteAim, yieldG: number): string {
  const sour = { ...untasted, acidity: 8 };
  const { change } = judgeTaste(sour, aim, policy.tasteLever, leverEffects([], policy.lessDose));
  return change === null ? 'Nothing to change' : changeWord(change.lever, change.by, yieldG);
}
