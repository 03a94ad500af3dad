import type { Grinder } from '@tempera/contract/bar';
import type { GrinderSet } from '@tempera/core/calibration';
import { dialNumber, seconds } from '../kernel/format.ts';

/** "Dial 17; House 9.3 s, House single 4.7 s": how a grinder is set, with the grind time of each of its recipes. */
export function setWord(
  { recipe, others, readsDial }: Pick<Grinder, 'recipe' | 'others' | 'readsDial'>,
  { setting, doses }: GrinderSet,
): string {
  const recipes = [recipe, ...others.map((other) => other.recipe)];
  const times = doses.map(({ recipeVersionId, doseTimeS }) => {
    const name = recipes.find(({ id }) => id === recipeVersionId)?.name;
    return doses.length > 1 && name ? `${name} ${seconds(doseTimeS)}` : `grind ${seconds(doseTimeS)}`;
  });
  const dial = readsDial ? `Dial ${dialNumber(setting)}` : 'Where it stands';
  return times.length === 0 ? dial : `${dial}; ${times.join(', ')}`;
}
