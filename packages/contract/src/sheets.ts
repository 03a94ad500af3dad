import type { z } from 'zod';
import {
  basketSheetSchema,
  counterSheetSchema,
  fixtureSheetSchema,
  grinderSheetSchema,
  groupSheetSchema,
  machineSheetSchema,
} from './bar.ts';
import { bagSheetSchema, coffeeSheetSchema } from './coffee.ts';
import type { SheetKind } from './sheetPaths.ts';
import { cafeSheetSchema, drinkSheetSchema } from './house.ts';
import { personSheetSchema } from './team.ts';

/** The schema of every kind of sheet. */
export const sheetSchemas = {
  machine: machineSheetSchema,
  group: groupSheetSchema,
  grinder: grinderSheetSchema,
  basket: basketSheetSchema,
  fixture: fixtureSheetSchema,
  counter: counterSheetSchema,
  coffee: coffeeSheetSchema,
  bag: bagSheetSchema,
  drink: drinkSheetSchema,
  cafe: cafeSheetSchema,
  person: personSheetSchema,
} satisfies Record<SheetKind, z.ZodType>;

/** The sheet of a kind, as its schema reads it. */
export type SheetOf<K extends SheetKind> = z.infer<(typeof sheetSchemas)[K]>;
