import { isDeepStrictEqual } from 'node:util';
import type { ApiKey } from '@tempera/contract/routes';
import type { ListedKind, ListRoute, SheetRoutes } from '@tempera/contract/routes/sheets';
import type { Kept, SheetChange } from '@tempera/contract/sheet';
import { sheetPaths, type SheetKind } from '@tempera/contract/sheetPaths';
import { sheetSchemas, type SheetOf } from '@tempera/contract/sheets';
import type { Session } from '@tempera/contract/team';
import { QueryFailedError, type DataSource, type EntityManager, type EntitySchema } from 'typeorm';
import { v7 as uuidv7 } from 'uuid';
import { SheetVersionEntity, type SheetVersionRow } from './entities.ts';
import type { KeptRow } from './entity.ts';
import { problem } from './problems.ts';
import type { Handlers } from './room.ts';

/** Who writes which sheet, and whether it is taken out of use. */
export interface SheetWriting {
  session: Session;
  sheetId: string;
  retired: boolean;
}

/** How a kind of sheet is kept. */
export interface SheetTable<K extends SheetKind> {
  kind: K;
  entity: EntitySchema<KeptRow & SheetOf<K>>;
  /** @throws ProblemError when the sheet names something that is not of this café */
  check?(tx: EntityManager, siteId: string, sheet: SheetOf<K>, writing: SheetWriting): Promise<void>;
  /** Columns beside the sheet that a new row needs. */
  atFirst?(tx: EntityManager, siteId: string, sheet: SheetOf<K>): Promise<object>;
}

type Row = KeptRow & Record<string, unknown>;

/**
 * Writes a sheet whole. The same change sent twice is answered as done.
 * @throws ProblemError notFound, changedMeanwhile, nameTaken, placeTaken, unknownPart
 */
async function keepSheet<K extends SheetKind>(
  db: DataSource,
  session: Session,
  table: SheetTable<K>,
  sheetId: string,
  change: SheetChange<SheetOf<K>>,
): Promise<Kept<SheetOf<K>>> {
  const siteId = session.site.id;
  const { basedOn, retired, sheet } = change;
  try {
    return await db.transaction(async (tx) => {
      await table.check?.(tx, siteId, sheet, { session, sheetId, retired });
      const repository = tx.getRepository<Row>(table.entity);
      const row = await repository.findOne({ where: { id: sheetId }, lock: { mode: 'pessimistic_write' } });
      if (row && (table.kind === 'cafe' ? row.id : row.siteId) !== siteId) throw problem('notFound');
      if (!row && basedOn !== 0) throw problem('notFound');
      const written: Row = {
        ...sheet,
        id: sheetId,
        revision: (row?.revision ?? 0) + 1,
        retired,
        changedBy: session.person.id,
        changedAt: new Date(),
      } as unknown as Row;
      if (row && row.revision !== basedOn) {
        if (isDone(row, written, basedOn, table.kind)) return toKept(table.kind, row, session.person.name);
        throw problem('changedMeanwhile');
      }
      if (row) await repository.update({ id: sheetId }, written as never);
      else await repository.insert({ ...written, siteId, ...(await table.atFirst?.(tx, siteId, sheet)) } as never);
      const by = { siteId, personId: session.person.id };
      await writeVersion(tx, by, table.kind, sheetId, written, sheet);
      return toKept(table.kind, written, session.person.name);
    });
  } catch (error) {
    throw asProblem(error);
  }
}

/**
 * Changes a sheet by what was done at work, as whoever did it. Nothing happens to one that is gone or says so already.
 * @param changed the sheet as it is from now on
 */
export async function changeSheet<K extends SheetKind>(
  tx: EntityManager,
  { kind, entity }: SheetTable<K>,
  sheetId: string,
  by: Writer,
  changed: (sheet: SheetOf<K>) => SheetOf<K>,
): Promise<void> {
  const repository = tx.getRepository<Row>(entity);
  const row = await repository.findOne({
    where: { id: sheetId, siteId: by.siteId },
    lock: { mode: 'pessimistic_write' },
  });
  if (!row) return;
  const before = sheetOf(kind, row);
  const sheet = changed(before);
  if (isDeepStrictEqual(sheet, before)) return;
  const revision = row.revision + 1;
  const written = { ...sheet, revision, changedBy: by.personId, changedAt: new Date() };
  await repository.update({ id: sheetId }, written as never);
  await writeVersion(tx, by, kind, sheetId, { revision, retired: row.retired }, sheet);
}

/** Whose change it is. */
interface Writer {
  siteId: string;
  personId: string;
}

/** Keeps a revision for good, which also tells every open browser. */
export async function writeVersion(
  tx: EntityManager,
  { siteId, personId }: Writer,
  kind: SheetVersionRow['kind'],
  subjectId: string,
  { revision, retired }: { revision: number; retired: boolean },
  sheet: object,
): Promise<void> {
  await tx.insert(SheetVersionEntity, {
    id: uuidv7(),
    siteId,
    kind,
    subjectId,
    revision,
    retired,
    changedBy: personId,
    sheet,
  });
}

/** An answer got lost, and the same person sends the same again. */
function isDone(row: Row, written: Row, basedOn: number, kind: SheetKind): boolean {
  return (
    row.revision === basedOn + 1 &&
    row.changedBy === written.changedBy &&
    row.retired === written.retired &&
    isDeepStrictEqual(sheetOf(kind, row), sheetOf(kind, written))
  );
}

const UNIQUE = '23505';
const FOREIGN_KEY = '23503';
const GROUP_PLACE = 'group_head_position_uq';

function asProblem(error: unknown): unknown {
  if (!(error instanceof QueryFailedError)) return error;
  const { code, constraint = '' } = error.driverError as { code?: string; constraint?: string };
  if (code === UNIQUE) return problem(constraint === GROUP_PLACE ? 'placeTaken' : 'nameTaken', { cause: error });
  return code === FOREIGN_KEY ? problem('unknownPart', { cause: error }) : error;
}

function sheetOf<K extends SheetKind>(kind: K, row: Row): SheetOf<K> {
  const keys = Object.keys(sheetSchemas[kind].shape);
  return Object.fromEntries(keys.map((key) => [key, row[key]])) as SheetOf<K>;
}

function toKept<K extends SheetKind>(kind: K, row: KeptRow, changedBy: string | null): Kept<SheetOf<K>> {
  return {
    id: row.id,
    revision: row.revision,
    retired: row.retired,
    changedBy,
    changedAt: row.changedAt?.toISOString() ?? null,
    sheet: sheetOf(kind, row as Row),
  };
}

/** Every sheet of a kind, retired ones too, in the order they were made. */
export async function keptSheets<K extends SheetKind>(
  db: DataSource,
  siteId: string,
  { kind, entity }: SheetTable<K>,
): Promise<Kept<SheetOf<K>>[]> {
  const where = kind === 'cafe' ? { id: siteId } : { siteId };
  const rows = await db.getRepository<Row>(entity).find({ where: where as never, order: { id: 'ASC' } as never });
  const names = await namesOf(db, siteId);
  return rows.map((row) => toKept(kind, row, names.get(row.changedBy ?? '') ?? null));
}

async function namesOf(db: DataSource, siteId: string): Promise<Map<string, string>> {
  const people = await db.query<{ id: string; name: string }[]>('SELECT id, name FROM person WHERE site_id = $1', [
    siteId,
  ]);
  return new Map(people.map(({ id: personId, name }) => [personId, name]));
}

/** Every revision of one sheet, newest first. */
async function revisionsOf(
  db: DataSource,
  siteId: string,
  kind: SheetKind,
  sheetId: string,
): Promise<Kept<Record<string, unknown>>[]> {
  const rows = await db
    .getRepository(SheetVersionEntity)
    .find({ where: { siteId, kind, subjectId: sheetId }, order: { revision: 'DESC' } });
  const names = await namesOf(db, siteId);
  return rows.map((row) => ({
    id: row.subjectId,
    revision: row.revision,
    retired: row.retired,
    changedBy: names.get(row.changedBy) ?? null,
    changedAt: row.changedAt.toISOString(),
    sheet: row.sheet,
  }));
}

type Answering<T> = Handlers<Extract<keyof T, ApiKey>>;

/** What answers for writing a kind of sheet, and for the revisions of one. */
export function writingHandlers<K extends SheetKind>(db: DataSource, table: SheetTable<K>): Answering<SheetRoutes<K>> {
  const path = sheetPaths[table.kind];
  const handlers = {
    [`GET ${path}/{id}/revisions`]: async ({ session, params }: SheetAsked<K>) => ({
      revisions: await revisionsOf(db, session.site.id, table.kind, params.id),
    }),
    [`PUT ${path}/{id}`]: ({ session, params, body }: SheetAsked<K>) => keepSheet(db, session, table, params.id, body),
  };
  return handlers as unknown as Answering<SheetRoutes<K>>;
}

/** The same, with the list of all of them. */
export function sheetHandlers<K extends ListedKind>(
  db: DataSource,
  table: SheetTable<K>,
): Answering<SheetRoutes<K> & ListRoute<K>> {
  const list = async ({ session }: SheetAsked<K>) => ({ sheets: await keptSheets(db, session.site.id, table) });
  return { ...writingHandlers(db, table), [`GET ${sheetPaths[table.kind]}`]: list } as unknown as Answering<
    SheetRoutes<K> & ListRoute<K>
  >;
}

interface SheetAsked<K extends SheetKind> {
  session: Session;
  params: { id: string };
  body: SheetChange<SheetOf<K>>;
}

/** Whether a thing that is kept on a sheet is one of this café's. */
export const isOurs = (
  tx: EntityManager,
  siteId: string,
  kind: 'machine' | 'grinder' | 'basket' | 'coffee' | 'bag',
  id: string,
): Promise<boolean> => tx.getRepository<{ id: string; siteId: string }>(kind).existsBy({ id, siteId });

/** Refuses a sheet that names something of another café, or nothing at all. @throws ProblemError unknownPart */
export async function mustBeOurs(
  tx: EntityManager,
  siteId: string,
  kind: Parameters<typeof isOurs>[2],
  namedId: string | null,
): Promise<void> {
  if (namedId !== null && !(await isOurs(tx, siteId, kind, namedId))) throw problem('unknownPart');
}
