import { z } from 'zod';
import type { Route } from '../route.ts';
import { changeOf, keptOf, type Kept, type SheetChange } from '../sheet.ts';
import { sheetPaths, type SheetKind } from '../sheetPaths.ts';
import { sheetSchemas, type SheetOf } from '../sheets.ts';

/** Bags are many, and read a page at a time instead of all of them. */
export type ListedKind = Exclude<SheetKind, 'bag'>;

type PathOf<K extends SheetKind> = (typeof sheetPaths)[K];

interface Answering<Answer> extends Route {
  answer: z.ZodType<Answer>;
}
interface Writing<Change, Answer> extends Answering<Answer> {
  body: z.ZodType<Change, Change>;
}

/** The routes of one kind of sheet: all of them, one with its revisions, and writing one. */
export type SheetRoutes<K extends SheetKind> = {
  [P in `GET ${PathOf<K>}/{id}/revisions`]: Answering<{ revisions: Kept<SheetOf<K>>[] }>;
} & { [P in `PUT ${PathOf<K>}/{id}`]: Writing<SheetChange<SheetOf<K>>, Kept<SheetOf<K>>> };
/** The route that lists every sheet of a kind. */
export type ListRoute<K extends ListedKind> = {
  [P in `GET ${PathOf<K>}`]: Answering<{ sheets: Kept<SheetOf<K>>[] }>;
};

/** Routes of a kind of sheet. @param who may write one @param surely whether it wants a PIN of just now */
export function sheetRoutes<K extends SheetKind>(
  kind: K,
  who: Route['who'] = 'headOrOffice',
  surely?: 'surely',
): SheetRoutes<K> {
  const path = sheetPaths[kind];
  const kept = keptOf(sheetSchemas[kind]);
  const table: Record<string, Route> = {
    [`GET ${path}/{id}/revisions`]: {
      says: `Every revision of one ${kind}, newest first.`,
      who: 'signedIn',
      answer: z.object({ revisions: z.array(kept) }),
    },
    [`PUT ${path}/{id}`]: {
      says: `The ${kind} as it is kept. It is written whole, based on a revision, and safe to repeat.`,
      who,
      ...(surely ? { surely: true as const } : {}),
      body: changeOf(sheetSchemas[kind]),
      answer: kept,
    },
  };
  return table as SheetRoutes<K>;
}

/** The same, with the list of all of them. */
export function listedRoutes<K extends ListedKind>(kind: K, surely?: 'surely'): SheetRoutes<K> & ListRoute<K> {
  const list: Record<string, Route> = {
    [`GET ${sheetPaths[kind]}`]: {
      says: `Every ${kind}, those no longer in use too.`,
      who: 'signedIn',
      answer: z.object({ sheets: z.array(keptOf(sheetSchemas[kind])) }),
    },
  };
  return { ...sheetRoutes(kind, 'headOrOffice', surely), ...(list as ListRoute<K>) };
}
