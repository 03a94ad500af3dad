import { Text } from '@mantine/core';
import { grindTimeForS, verifyDoses, type DoseVerdict as Verdict } from '@tempera/core/calibration';
import type { HouseWays } from '@tempera/core/house';
import { BandRow } from '../ui/BandRow.tsx';
import { grams, seconds } from '../ui/format.ts';

/** As many doses as a mean and its spread want. */
export const ENOUGH_DOSES = 3;

interface RecipeDose {
  doseG: number;
  doseToleranceG: number;
}

/** What a handful of weighed doses says, and what to do about it. */
export interface JudgedDoses extends Verdict {
  /** Single doses lie further apart than the recipe bears: no grind time mends that. */
  scatters: boolean;
  /** The grind time that would fit better; null where nothing is ground by time, or it fits. */
  betterS: number | null;
}

/** @param timeS grind time of these doses; null: they were not ground by time */
export function judgeDoses(
  dosesG: readonly number[],
  { doseG, doseToleranceG }: RecipeDose,
  timeS: number | null,
): JudgedDoses | null {
  if (dosesG.length === 0) return null;
  const verdict = verifyDoses(dosesG, { doseG, toleranceG: doseToleranceG });
  const scatters = verdict.sdG > doseToleranceG;
  const fitting =
    timeS === null
      ? null
      : grindTimeForS(
          dosesG.map((weighedG) => ({ grindTimeS: timeS, doseG: weighedG, x: 0 })),
          doseG,
          0,
        );
  return { ...verdict, scatters, betterS: verdict.holds || scatters || fitting === timeS ? null : fitting };
}

interface Props {
  judged: JudgedDoses;
  recipe: RecipeDose;
  /** Whether there are doses enough to say so. */
  enough: boolean;
  way: HouseWays['dosing'];
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
const scatterWord: Record<HouseWays['dosing'], string> = {
  timed: 'look at the hopper and the chute before the time',
  weighed: 'grind the last gram slowly, and let the scale settle',
  levelled: 'tap and strike each one alike, or weigh them',
};

function sentenceOf(
  { holds, scatters, betterS, meanG, sdG, count }: JudgedDoses,
  { doseG }: RecipeDose,
  way: HouseWays['dosing'],
): string {
  if (holds) return `It holds: ${grams(meanG)}, mean of ${count}, give or take ${grams(sdG)}.`;
  if (scatters) return `The doses scatter by ${grams(sdG)}: ${scatterWord[way]}.`;
  if (betterS !== null) return `Set ${seconds(betterS)} for ${grams(doseG)}, and weigh again.`;
  const off = `The mean is ${grams(Math.abs(meanG - doseG))} ${meanG > doseG ? 'over' : 'under'}`;
  return way === 'levelled' ? `${off}: mind the tap before the straight edge.` : `${off}: mind the scale.`;
}
