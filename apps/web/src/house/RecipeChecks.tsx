import { Text } from '@mantine/core';
import { crossChecks } from '@tempera/core/house';
import { ratioLimits, ratioOf } from '@tempera/core/house';
import { useSheets } from '../kernel/sheets.ts';
import { findingWord } from './findingWord.ts';
import classes from './House.module.css';

interface Props {
  read: Record<string, unknown>;
  baskets: readonly { value: string; name: string; minG: number; maxG: number }[];
}

/** What would not go together if the recipe were kept as it stands: said, not forbidden. */
export function RecipeChecks({ read, baskets }: Props) {
  const { data: cafe } = useSheets('cafe');
  const recipe = read as { name: string; doseG: number; yieldG: number; basketId: string | null; tempC: number | null };
  const findings = crossChecks({
    altitudeM: cafe?.[0]?.sheet.altitudeM ?? 0,
    baskets: baskets.map(({ value, name, minG, maxG }) => ({ id: value, name, minG, maxG })),
    recipes: [{ recipeId: 'this', ...recipe, name: recipe.name.trim() || 'This recipe' }],
    coffees: [],
    groups: [],
    grinders: [],
  }).map(findingWord);
  const ratio = ratioOf(recipe.doseG, recipe.yieldG);
  const [least, most] = ratioLimits.usual;
  const unusual = ratio !== null && (ratio < least || ratio > most);
  const all = [
    ...findings,
    ...(unusual ? [`A ratio of ${ratio} lies outside the usual ${least} to ${most}. Kept as typed; look twice.`] : []),
  ];
  return (
    <div aria-live="polite" className={classes.checks}>
      {all.map((says) => (
        <Text key={says}>{says}</Text>
      ))}
    </div>
  );
}
