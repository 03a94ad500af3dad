import {
  tasteAxes,
  type TasteChange,
  type TasteFault,
  type TasteAxis,
  type LeverAxis,
  type TasteTable,
} from '@tempera/core/taste';
import { changeWord } from '../house/index.ts';
import { grams } from '../kernel/format.ts';

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

interface AimedAt {
  yieldG: number;
  doseG: number;
}

/** A change with its number, and for a dose the grind time that goes with it. */
export function changeSays(
  { lever, by }: TasteChange,
  recipe: AimedAt,
  grindTimeS: (doseG: number) => number | null,
): string {
  if (lever !== 'dose') return changeWord(lever, by, recipe.yieldG);
  const doseG = recipe.doseG + by;
  const timeS = grindTimeS(doseG);
  return `Weigh ${grams(doseG)} instead of ${grams(recipe.doseG)}${timeS === null ? '' : `: grind ${timeS.toFixed(1)} s`}`;
}

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

/** One step up of a lever. */
export const leverUpWord: Record<TasteChange['lever'], string> = {
  yield: '6 % more in the cup',
  grind: 'One mark finer',
  dose: '0.3 g more coffee',
  temperature: 'A degree hotter',
};
