/** Where a recipe's clock starts; a lever has no pump, and starts with its first pull. */
export const timeStarts = ['pump', 'firstDrop', 'soakEnd', 'pull'] as const;
export type TimeStart = (typeof timeStarts)[number];

export interface TimedRecipe {
  timeFrom: TimeStart;
  timeMinS: number;
  timeMaxS: number;
  firstDropMinS: number;
  firstDropMaxS: number;
  soakS: number;
  pauseS: number;
}

/**
 * The time window as the bench's clock sees it, which starts with the pump, seconds.
 * From the end of the soak: soak and pause come on top. From the first drop: the middle of its own window does, since
 * the drop is not known before it falls.
 */
export function pumpWindowS(recipe: TimedRecipe): { min: number; max: number } {
  const beforeS = startsAfterS(recipe);
  return { min: recipe.timeMinS + beforeS, max: recipe.timeMaxS + beforeS };
}

function startsAfterS({ timeFrom, soakS, pauseS, firstDropMinS, firstDropMaxS }: TimedRecipe): number {
  if (timeFrom === 'soakEnd') return soakS + pauseS;
  return timeFrom === 'firstDrop' ? (firstDropMinS + firstDropMaxS) / 2 : 0;
}
