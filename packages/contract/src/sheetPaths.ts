/** Where the sheets of each kind are read and written. Apart from their schemas: a page that lists needs no schema. */
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
  person: '/team/people',
} as const;

/** Every kind of sheet. */
export type SheetKind = keyof typeof sheetPaths;
