import { addDays } from '@tempera/core/house';
import { demoId, site } from './demoBar.ts';

/** When bags go into a hopper, minutes after midnight, and how much they hold. */
interface HopperHabit {
  grinder: string;
  coffee: string;
  weightG: number;
  /** Every so many days. */
  everyDays: number;
  atMin: readonly number[];
  /** Days between roast and hopper. */
  restedDays: number;
}

const habits: readonly HopperHabit[] = [
  { grinder: 'House', coffee: 'Canopy blend', weightG: 2_500, everyDays: 1, atMin: [362, 745], restedDays: 9 },
  { grinder: 'Guest', coffee: 'Lantern Moss', weightG: 1_000, everyDays: 1, atMin: [372], restedDays: 8 },
  { grinder: 'Decaf', coffee: 'Dusk decaf', weightG: 1_000, everyDays: 3, atMin: [366], restedDays: 10 },
  { grinder: 'Brew', coffee: 'Rill, brewed', weightG: 1_000, everyDays: 2, atMin: [368], restedDays: 7 },
];

export interface DemoBag {
  id: string;
  grinder: string;
  coffee: string;
  daysAgo: number;
  atMin: number;
  roastedDaysAgo: number;
  weightG: number;
}

/** Roasts come once a week. */
const ROAST_EVERY_DAYS = 7;

/** Every bag that went into a hopper in the last `days` days, oldest first. @param untilDaysAgo 0: today's among them */
export function bagsUsed(days: number, untilDaysAgo = 1): DemoBag[] {
  return habits
    .flatMap(({ grinder, coffee, weightG, everyDays, atMin, restedDays }) =>
      Array.from({ length: days - untilDaysAgo + 1 }, (_, i) => days - i)
        .filter((daysAgo) => daysAgo % everyDays === 0)
        .flatMap((daysAgo) =>
          atMin.map((at) => ({
            id: demoId(`bag ${grinder} ${daysAgo} ${at}`),
            grinder,
            coffee,
            daysAgo,
            atMin: at,
            roastedDaysAgo: Math.ceil((daysAgo + restedDays) / ROAST_EVERY_DAYS) * ROAST_EVERY_DAYS - 1,
            weightG,
          })),
        ),
    )
    .toSorted((a, b) => b.daysAgo - a.daysAgo || a.atMin - b.atMin);
}

/** Closed bags on the shelf and in the freezer: coffee, days since the roast, days since it was frozen. */
const shelf: readonly {
  coffee: string;
  weightG: number;
  count: number;
  roastedDaysAgo: number;
  frozenDaysAgo?: number;
}[] = [
  { coffee: 'Canopy blend', weightG: 2_500, count: 5, roastedDaysAgo: 8 },
  { coffee: 'Canopy blend', weightG: 2_500, count: 4, roastedDaysAgo: 1 },
  { coffee: 'Lantern Moss', weightG: 1_000, count: 2, roastedDaysAgo: 12 },
  { coffee: 'Lantern Moss', weightG: 1_000, count: 3, roastedDaysAgo: 5 },
  { coffee: 'Lantern Moss', weightG: 1_000, count: 2, roastedDaysAgo: 40, frozenDaysAgo: 33 },
  { coffee: 'Dusk decaf', weightG: 1_000, count: 2, roastedDaysAgo: 16 },
  { coffee: 'Rill, brewed', weightG: 1_000, count: 2, roastedDaysAgo: 9 },
];

const kept = { siteId: site.id, revision: 1, retired: false, changedBy: null, changedAt: null };

/** The rows of all bags: used up, in the hoppers, and in stock. */
export function bagRows(used: readonly DemoBag[], today: string) {
  const row = (id: string, coffee: string, weightG: number, roastedDaysAgo: number, frozenDaysAgo?: number) => ({
    ...kept,
    id,
    coffeeId: demoId(`coffee ${coffee}`),
    roastedOn: addDays(today, -roastedDaysAgo),
    weightG,
    freezes: frozenDaysAgo === undefined ? [] : [{ on: addDays(today, -frozenDaysAgo), until: null }],
    openedOn: null,
    finishedOn: null,
    label: '',
  });
  return [
    ...used.map(({ id, coffee, weightG, roastedDaysAgo }) => row(id, coffee, weightG, roastedDaysAgo)),
    ...shelf.flatMap(({ coffee, weightG, count, roastedDaysAgo, frozenDaysAgo }) =>
      Array.from({ length: count }, (_, i) =>
        row(demoId(`shelf ${coffee} ${roastedDaysAgo} ${i}`), coffee, weightG, roastedDaysAgo, frozenDaysAgo),
      ),
    ),
  ];
}
