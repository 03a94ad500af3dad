import { Text } from '@mantine/core';
import { ENOUGH_DOSES, type JudgedDoses } from '@tempera/core/calibration';
import type { ServicePolicy } from '@tempera/core/house';
import { BandRow } from '../ui/BandRow.tsx';
import { grams, seconds } from '../kernel/format.ts';

interface RecipeDose {
  doseG: number;
  doseToleranceG: number;
}

interface Props {
  judged: JudgedDoses;
  recipe: RecipeDose;
  /** Whether there are doses enough to say so. */
  enough: boolean;
  way: ServicePolicy['dosing'];
}

/** The mean on the recipe's band, and in a sentence what it means. */
export function DoseVerdict({ judged, recipe, enough, way }: Props) {
  const { meanG, sdG } = judged;
  const { doseG, doseToleranceG } = recipe;
  return (
    <>
      <BandRow
        name="Mean"
        unit="g"
        value={meanG}
        window={{ low: doseG - doseToleranceG, high: doseG + doseToleranceG }}
        doubt={{ low: meanG - sdG, high: meanG + sdG }}
      />
      <Text aria-live="polite" fw={600}>
        {enough
          ? sentenceOf(judged, recipe, way)
          : `${Math.max(1, ENOUGH_DOSES - judged.count)} more, then it can be judged.`}
      </Text>
    </>
  );
}

/** Where to look first when doses lie further apart than the recipe bears. */
const scatterWord: Record<ServicePolicy['dosing'], string> = {
  timed: 'look at the hopper and the chute before the time',
  weighed: 'grind the last gram slowly, and let the scale settle',
  levelled: 'settle and strike each one alike, or weigh them',
  line: 'fill each one to the same line, or weigh them',
  eye: 'compare each with the last, or weigh them',
};

function sentenceOf(
  { holds, scatters, betterS, meanG, sdG, count }: JudgedDoses,
  { doseG }: RecipeDose,
  way: ServicePolicy['dosing'],
): string {
  if (holds) return `It holds: ${grams(meanG)}, mean of ${count}, give or take ${grams(sdG)}.`;
  if (scatters) return `The doses scatter by ${grams(sdG)}: ${scatterWord[way]}.`;
  if (betterS !== null) return `Set ${seconds(betterS)} for ${grams(doseG)}, and weigh again.`;
  const off = `The mean is ${grams(Math.abs(meanG - doseG))} ${meanG > doseG ? 'over' : 'under'}`;
  return way === 'levelled' ? `${off}: mind how it settles before the straight edge.` : `${off}: mind the scale.`;
}
