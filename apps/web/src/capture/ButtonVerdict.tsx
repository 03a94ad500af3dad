import { Text } from '@mantine/core';
import { ENOUGH_YIELDS, type JudgedButton } from '@tempera/core/capture';
import { around } from '../ui/Band.tsx';
import { BandRow } from '../ui/BandRow.tsx';
import { grams } from '../kernel/format.ts';

interface RecipeYield {
  yieldG: number;
  yieldToleranceG: number;
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
      <BandRow name="Mean" unit="g" value={meanG} window={around(yieldG, yieldToleranceG)} />
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
