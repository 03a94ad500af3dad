import type { BagSheet, CoffeeSheet } from '@tempera/contract/coffee';
import { EntitySchema } from 'typeorm';
import {
  bool,
  day,
  foreignKey,
  id,
  instant,
  json,
  keptColumns,
  nameInUse,
  real,
  siteColumn,
  text,
  uuid,
  type KeptRow,
} from '../kernel/entity.ts';

export const CoffeeEntity = new EntitySchema<KeptRow & CoffeeSheet>({
  name: 'coffee',
  columns: {
    id: { ...id, primaryKeyConstraintName: 'coffee_pk' },
    siteId: siteColumn('coffee'),
    name: text(),
    kind: text(),
    decaf: bool('decaf'),
    roast: text(undefined, { default: 'medium' }),
    roasterWords: text('roaster_words'),
    restDays: real('rest_days'),
    primeDays: real('prime_days'),
    fadeDays: real('fade_days'),
    openBestH: { ...real('open_best_h'), default: 12 },
    openStaleH: { ...real('open_stale_h'), default: 16 },
    pricePerKg: real('price_per_kg', true),
    recipeId: uuid('recipe_id', { nullable: true }),
    moreRecipes: json('more_recipes', { default: [] }),
    ...keptColumns('coffee'),
  },
  indices: [nameInUse('coffee')],
});

/** What the facts say of a bag: the database keeps it beside the sheet, by the triggers of `bags-in-use`. */
interface BagInUse {
  firstInAt?: Date | null;
  lastInAt?: Date | null;
  inGrinderId?: string | null;
  usedUp?: boolean;
}

export const BagEntity = new EntitySchema<KeptRow & BagSheet & BagInUse>({
  name: 'bag',
  columns: {
    id: { ...id, primaryKeyConstraintName: 'bag_pk' },
    siteId: siteColumn('bag'),
    coffeeId: uuid('coffee_id', foreignKey('coffee', 'bag_coffee_fk')),
    roastedOn: day('roasted_on', { nullable: false }),
    weightG: real('weight_g'),
    freezes: json('freezes'),
    openedOn: day('opened_on'),
    finishedOn: day('finished_on'),
    portionOf: uuid('portion_of', { nullable: true, ...foreignKey('bag', 'bag_portion_of_fk') }),
    label: text(),
    firstInAt: instant('first_in_at', { nullable: true }),
    lastInAt: instant('last_in_at', { nullable: true }),
    inGrinderId: uuid('in_grinder_id', { nullable: true }),
    usedUp: bool('used_up', { default: false }),
    ...keptColumns('bag'),
  },
  indices: [
    { name: 'bag_roasted_ix', columns: ['siteId', 'roastedOn'] },
    { name: 'bag_stock_ix', columns: ['siteId'], where: 'NOT used_up AND NOT retired AND finished_on IS NULL' },
    { name: 'bag_coffee_ix', columns: ['coffeeId', 'finishedOn'] },
    // Its weights go along, which cannot be told to the ORM.
    { name: 'bag_grinder_ix', synchronize: false },
  ],
});

export const coffeeEntities = [CoffeeEntity, BagEntity];
