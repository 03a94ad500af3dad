import { Text } from '@mantine/core';
import { ENOUGH_DOSES, type JudgedDoses } from '@tempera/core/calibration';
import { around } from '../ui/Band.tsx';
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
}

/** The mean on the recipe's band, and in a sentence what it means. */
export function DoseVerdict({ judged, recipe, enough }: Props) {
  const { meanG, sdG } = judged;
  const { doseG, doseToleranceG } = recipe;
  return (
    <>
      <BandRow
        name="Mean"
        unit="g"
        value={meanG}
        window={around(doseG, doseToleranceG)}
        doubt={{ low: meanG - sdG, high: meanG + sdG }}
      />
      <Text aria-live="polite" fw={600}>
        {enough
          ? sentenceOf(judged, recipe)
          : `${Math.max(1, ENOUGH_DOSES - judged.count)} more, then it can be judged.`}
      </Text>
    </>
  );
}

function sentenceOf({ holds, scatters, betterS, meanG, sdG, count }: JudgedDoses, { doseG }: RecipeDose): string {
  if (holds) return `It holds: ${grams(meanG)}, mean of ${count}, give or take ${grams(sdG)}.`;
  if (scatters) return `The doses scatter by ${grams(sdG)}: look at the hopper and the chute before the time.`;
  if (betterS !== null) return `Set ${seconds(betterS)} for ${grams(doseG)}, and weigh again.`;
  return `The mean is ${grams(Math.abs(meanG - doseG))} ${meanG > doseG ? 'over' : 'under'}: mind the scale.`;
}
