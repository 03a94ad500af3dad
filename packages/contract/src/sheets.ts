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
import { cafeSheetSchema, drinkSheetSchema } from './house.ts';

/** Every kind of sheet, with its schema. */
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
};

export type SheetKind = keyof typeof sheetSchemas;
export type SheetOf<K extends SheetKind> = z.infer<(typeof sheetSchemas)[K]>;

/** Where the sheets of a kind are read and written. */
export const sheetPaths = {
  machine: '/bar/machines',
  group: '/bar/groups',
  grinder: '/bar/grinders',
  basket: '/bar/baskets',
  fixture: '/bar/fixtures',
  counter: '/bar/counters',
  coffee: '/coffee/coffees',
  bag: '/coffee/bags',
  drink: '/house/drinks',
  cafe: '/house/cafe',
} as const satisfies Record<SheetKind, `/${string}`>;
