import { recipeSchema } from '@tempera/contract/house';
import { describe, expect, it } from 'vitest';
import { freshRecipe, freshRoaster, recipeFields, roasterFields } from './recipeFields.ts';

/** What the editor itself adds to what its fields say. */
const ADDED = ['retired'];
const topOf = (name: string): string => name.split('.')[0] ?? '';

describe('the form of a recipe', () => {
  it('asks for all that a recipe keeps, and for nothing else', () => {
    // A key that the form forgot would be lost at the next version.
    const asked = new Set([...recipeFields([]), ...roasterFields].map(({ name }) => topOf(name)));
    expect([...asked, ...ADDED].sort()).toEqual(Object.keys(recipeSchema.shape).sort());
    const roaster = roasterFields.map(({ name }) => name.replace('roaster.', ''));
    expect(roaster.sort()).toEqual(Object.keys(freshRoaster).sort());
  });

  it('starts from a double that wants nothing but a name', () => {
    const { error } = recipeSchema.safeParse(freshRecipe);
    expect(error?.issues.map(({ path }) => path.join('.'))).toEqual(['name']);
    expect(recipeSchema.safeParse({ ...freshRecipe, name: 'Double', roaster: freshRoaster }).success).toBe(true);
  });
});
