import type { Grinder } from '@tempera/contract/bar';
import {
  tasteAxes,
  usualSteps,
  type TasteChange,
  type TasteFault,
  type TasteAxis,
  type LeverAxis,
  type TasteTable,
} from '@tempera/core/taste';
import { changeWord } from '../house/index.ts';
import { grams } from '../kernel/format.ts';
import type { Tasting } from './useTasting.ts';

interface AxisWords {
  name: string;
  /** What little and much of it are like; people mix sour and bitter up. */
  little: string;
  much: string;
}

export const axisWords: Record<TasteAxis, AxisWords> = {
  acidity: { name: 'Acidity', little: 'flat', much: 'sour: unripe citrus, at the sides' },
  bitterness: { name: 'Bitterness', little: 'none', much: 'harsh: burnt toast, at the back' },
  sweetness: { name: 'Sweetness', little: 'none', much: 'much' },
  body: { name: 'Body', little: 'thin', much: 'thick' },
  strength: { name: 'Strength', little: 'weak, watery', much: 'strong, heavy' },
  finish: { name: 'Finish', little: 'short or dry', much: 'long and clean' },
};

/** Three sips, each with a purpose. */
export const sips: readonly { name: string; axes: readonly TasteAxis[] }[] = [
  { name: 'First sip: sour and bitter', axes: ['acidity', 'bitterness'] },
  { name: 'Second sip: sweetness and weight', axes: ['sweetness', 'body', 'strength'] },
  { name: 'Third sip, cooler: what stays', axes: ['finish'] },
];

const faultWords: Record<TasteFault, string> = {
  sour: 'too sour',
  bitter: 'too bitter',
  both: 'sour and bitter at once, as an uneven bed tastes',
  weak: 'too weak',
  strong: 'too strong',
};

export const faultsWord = (faults: readonly TasteFault[]): string =>
  faults.map((fault) => faultWords[fault]).join(', ');

/** A change with its number, and for a dose the grind time that goes with it. */
function changeSays(
  { lever, by }: TasteChange,
  { recipe }: Grinder,
  grindTimeS: (doseG: number) => number | null,
): string {
  if (lever !== 'dose') return changeWord(lever, by, recipe.yieldG);
  const doseG = recipe.doseG + by;
  const timeS = grindTimeS(doseG);
  return `Weigh ${grams(doseG)} instead of ${grams(recipe.doseG)}${timeS === null ? '' : `: grind ${timeS.toFixed(1)} s`}`;
}

/** Changes in one line, with how the window goes along: "Weigh 16.6 g instead of 17.0 g, and one mark coarser, then 26.5–31.5 s". */
export function changesSay(grinder: Grinder, changes: readonly TasteChange[], tasting: Tasting): string {
  const [first = '', ...rest] = changes.map((change) => changeSays(change, grinder, tasting.grindTimeS));
  const said = [first, ...rest.map((says) => `${says.charAt(0).toLowerCase()}${says.slice(1)}`)].join(', and ');
  return said + windowWord(grinder.recipe, tasting.carriedOut(changes).windowS);
}

/** ", then 26.5–31.5 s", where the window goes with the change. */
const windowWord = ({ timeMinS, timeMaxS }: Grinder['recipe'], byS: number): string =>
  byS === 0 ? '' : `, then ${timeMinS + byS}–${timeMaxS + byS} s`;

/** "acidity 6, bitterness 4, of 2 tasters": only what somebody said. */
export function tasteWord({ mean, tasters }: TasteTable): string {
  const said = tasteAxes.flatMap((axis) => {
    const score = mean[axis];
    return score === null ? [] : [`${axis} ${Math.round(score)}`];
  });
  const by = tasters === 1 ? 'one taster' : `${tasters} tasters`;
  return said.length === 0 ? `nothing said of the axes, ${by}` : `${said.join(', ')}, of ${by}`;
}

export const leverAxisWord: Record<LeverAxis, string> = {
  acidity: 'acidity',
  bitterness: 'bitterness',
  strength: 'strength',
};

const PERCENT = 100;

/** One step up of a lever, in this person's units. */
export const leverUpWord: Record<TasteChange['lever'], () => string> = {
  yield: () => `${Math.round(PERCENT * usualSteps.yield)} % more in the cup`,
  // Collars differ in how far a step of theirs is.
  grind: () => 'A step finer',
  dose: () => changeWord('dose', usualSteps.dose, 0),
  temperature: () => changeWord('temperature', usualSteps.temperature, 0),
};
