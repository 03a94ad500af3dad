import type { Finding } from '@tempera/core/house';
import { degrees } from '../kernel/format.ts';
import { bare, unitShown } from '../kernel/units.ts';

/** Grams without a trailing zero, as they stand on a basket. */
const grams = (g: number): string => `${bare('mass', g, 1)} ${unitShown('g')}`;

/** What does not go together, as somebody would say it. */
export function findingWord(finding: Finding): string {
  const { name } = finding;
  switch (finding.kind) {
    case 'doseOverBasket':
    case 'doseUnderBasket': {
      const { doseG, minG, maxG, kind } = finding;
      const then = kind === 'doseOverBasket' ? 'it would touch the screen' : 'the bed would lie loose';
      return `${name} asks for ${grams(doseG)} in a basket for ${grams(minG)} to ${grams(maxG)}: ${then}.`;
    }
    case 'boils':
      return `${name} asks for ${degrees(finding.tempC)}; water boils at ${degrees(finding.boilsAtC)} here.`;
    case 'noBasket':
      return `${name} names no basket: choose the one it is made for.`;
    case 'basketGone':
      return `${name} names a basket that is no longer in use.`;
    case 'noRecipe':
      return `${name} has no recipe: it cannot be dialled in.`;
    case 'recipeGone':
      return `The recipe of ${name} is no longer in use.`;
    case 'noCoffee':
      return `${name} holds no coffee yet: put a bag in.`;
    case 'sameName':
      return `Two grinders are called ${name}.`;
  }
}
