import { fitCase, trimDoses, weighableTrims, type AdviceCase } from '../calibration/index.ts';
import { FLOAT_DUST } from '../numbers/index.ts';
import { agreedSide, sideOf, soundOf, type Sound } from './sound.ts';

/**
 * The trim that is weighed, where nobody told but the doses of the shots: grams off the recipe's. Another dose than before was meant where
 * it is the recipe's, where it could have been asked for, slow shots asking for less, or where it shows twice; any other is a
 * dose that is a little off.
 */
export function shownTrimG(input: AdviceCase): number {
  const { recipe, shots, house } = input;
  const fit = fitCase(input, shots.at(-1)?.setting ?? 0);
  const doseFirst = house.smallMiss === 'dose';
  const trims = [0, ...(doseFirst ? weighableTrims(input) : trimDoses(input, fit.line))];
  const sounds = new Map(soundOf(input, fit).map((sound) => [sound.shot, sound]));
  let [weighedG, onceG] = [input.trimG, input.trimG];
  let before: Sound[] = [];
  for (const shot of shots) {
    const side = doseFirst ? sideOf(input, before[0]) : agreedSide(input, before);
    const nearest = nearestTo(shot.doseG - recipe.doseG, [weighedG, ...trims]);
    const isAsked = nearest === 0 || (nearest - weighedG) * side < 0;
    if (isAsked || nearest === onceG) weighedG = nearest;
    onceG = nearest;
    const sound = sounds.get(shot);
    if (sound) before = [sound, ...before].slice(0, 2);
  }
  return weighedG;
}

/** Of several the nearest; the earlier one of two that are as near. */
const nearestTo = (wanted: number, all: readonly number[]): number =>
  all.reduce((nearest, one) => (Math.abs(one - wanted) < Math.abs(nearest - wanted) - FLOAT_DUST ? one : nearest));
