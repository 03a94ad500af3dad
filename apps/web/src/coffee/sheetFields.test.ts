import { bagSheetSchema, coffeeSheetSchema } from '@tempera/contract/coffee';
import { describe, expect, it } from 'vitest';
import { bagFields, coffeeFields, freshBag, freshCoffee } from './sheetFields.ts';

const COFFEE_ID = '00000000-0000-4000-8000-000000000001';

describe('the forms of coffees and bags', () => {
  it('ask for all that their sheets keep, and for nothing else', () => {
    const names = (fields: readonly { name: string }[]): string[] => fields.map(({ name }) => name).sort();
    expect(names(coffeeFields([], 'EUR'))).toEqual(Object.keys(coffeeSheetSchema.shape).sort());
    // Which bag it was split off is not asked: splitting one says so.
    const { portionOf: _, ...asked } = bagSheetSchema.shape;
    expect(names(bagFields([]))).toEqual(Object.keys(asked).sort());
  });

  it('start from what is usual: a coffee wants its name, a bag nothing at all', () => {
    expect(coffeeSheetSchema.safeParse(freshCoffee).error?.issues.map(({ path }) => path.join('.'))).toEqual(['name']);
    expect(bagSheetSchema.safeParse(freshBag('2031-05-20', COFFEE_ID)).success).toBe(true);
  });
});
