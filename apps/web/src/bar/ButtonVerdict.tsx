import { Text } from '@mantine/core';
import { nextVolumeCount, type VolumeShot } from '@tempera/core/capture';
import { BandRow } from '../ui/BandRow.tsx';
import { grams } from '../ui/format.ts';

/** As many yields as a mean wants. */
export const ENOUGH_YIELDS = 3;

interface RecipeYield {
  yieldG: number;
  yieldToleranceG: number;
}

/** What a volume button gives in the mean, and what it should count. */
export interface JudgedButton {
  meanG: number;
  /** Yields at the count that it has now. */
  measured: number;
  enough: boolean;
  /** The count it is to have: the one it has, where the mean lies inside the tolerance. */
  nextCount: number;
}

/** @param shots at any count; only those at `counts` are judged, the others teach what a count is worth */
export function judgeButton(
  shots: readonly VolumeShot[],
  counts: number,
  { yieldG, yieldToleranceG }: RecipeYield,
): JudgedButton | null {
  const now = shots.filter(({ count }) => count === counts);
  if (now.length === 0) return null;
  const meanG = now.reduce((sum, shot) => sum + shot.yieldG, 0) / now.length;
  const holds = Math.abs(meanG - yieldG) <= yieldToleranceG;
  const before = shots.filter(({ count }) => count !== counts);
  return {
    meanG,
    measured: now.length,
    enough: now.length >= ENOUGH_YIELDS,
    nextCount: holds ? counts : nextVolumeCount([...before, ...now], yieldG),
  };
}

interface Props {
  judged: JudgedButton;
  counts: number;
  recipe: RecipeYield;
}

/** The mean on the recipe's band, and in a sentence what to do. */
export function ButtonVerdict({ judged: { meanG, measured, enough, nextCount }, counts, recipe }: Props) {
  const { yieldG, yieldToleranceG } = recipe;
  const by = nextCount - counts;
  return (
    <>
      <BandRow
        name="Mean"
        unit="g"
        value={meanG}
        window={{ low: yieldG - yieldToleranceG, high: yieldG + yieldToleranceG }}
      />
      <Text aria-live="polite" fw={600}>
        {!enough
          ? `${ENOUGH_YIELDS - measured} more, then the mean can be trusted.`
          : by === 0
            ? `It holds: leave it at ${counts}.`
            : `Programme ${nextCount} counts, ${Math.abs(by)} ${by > 0 ? 'more' : 'fewer'}, for ${grams(yieldG)}.`}
      </Text>
    </>
  );
}
