import { isDeepStrictEqual } from 'node:util';
import { entityId } from '@tempera/contract/common';
import { changeOf, type Kept, type SheetChange } from '@tempera/contract/sheet';
import { sheetPaths, sheetSchemas, type SheetKind, type SheetOf } from '@tempera/contract/sheets';
import type { Role, Session } from '@tempera/contract/team';
import { Router } from 'express';
import { QueryFailedError, type DataSource, type EntityManager, type EntitySchema } from 'typeorm';
import { v7 as uuidv7 } from 'uuid';
import { sessionOf } from '../team/index.ts';
import { SheetVersionEntity, type SheetVersionRow } from './entities.ts';
import type { KeptRow } from './entity.ts';
import { parsed, problem } from './problems.ts';

const keepers: readonly Role[] = ['head', 'office'];

/** How a kind of sheet is kept. */
export interface SheetTable<K extends SheetKind> {
  kind: K;
  entity: EntitySchema<KeptRow & SheetOf<K>>;
  /** Whether every role may write it; else a head barista or the office. */
  openToAll?: boolean;
  /** @throws ProblemError when the sheet names something that is not of this café */
  check?(tx: EntityManager, siteId: string, sheet: SheetOf<K>): Promise<void>;
  /** Columns beside the sheet that a new row needs. */
  atFirst?(tx: EntityManager, siteId: string, sheet: SheetOf<K>): Promise<object>;
}

type Row = KeptRow & Record<string, unknown>;

/**
 * Writes a sheet whole. The same change sent twice is answered as done.
 * @throws ProblemError headOrOffice, notFound, changedMeanwhile, nameTaken, placeTaken, unknownPart
 */
async function keepSheet<K extends SheetKind>(
  db: DataSource,
  session: Session,
  table: SheetTable<K>,
  sheetId: string,
  change: SheetChange<SheetOf<K>>,
): Promise<Kept<SheetOf<K>>> {
  if (!table.openToAll && !keepers.includes(session.person.role)) throw problem('headOrOffice');
  const siteId = session.site.id;
  const { basedOn, retired, sheet } = change;
  try {
    return await db.transaction(async (tx) => {
      await table.check?.(tx, siteId, sheet);
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
      await writeVersion(tx, session, table.kind, sheetId, written, sheet);
      return toKept(table.kind, written, session.person.name);
    });
  } catch (error) {
    throw asProblem(error);
  }
}

/** Keeps a revision for good, which also tells every open browser. */
export async function writeVersion(
  tx: EntityManager,
  { site, person }: Session,
  kind: SheetVersionRow['kind'],
  subjectId: string,
  { revision, retired }: { revision: number; retired: boolean },
  sheet: object,
): Promise<void> {
  await tx.insert(SheetVersionEntity, {
    id: uuidv7(),
    siteId: site.id,
    kind,
    subjectId,
    revision,
    retired,
    changedBy: person.id,
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
async function revisionsOf(db: DataSource, siteId: string, kind: SheetKind, sheetId: string): Promise<Kept<object>[]> {
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

/** The routes of a kind of sheet: all of them, the revisions of one, and writing one. */
export function sheetRoutes<K extends SheetKind>(db: DataSource, table: SheetTable<K>): Router {
  const router = Router();
  const path = sheetPaths[table.kind];
  const schema = changeOf(sheetSchemas[table.kind]);
  router.get(path, async (req, res) => {
    res.json({ sheets: await keptSheets(db, sessionOf(req).site.id, table) });
  });
  router.get(`${path}/:id/revisions`, async (req, res) => {
    const sheetId = parsed(entityId, req.params.id);
    res.json({ revisions: await revisionsOf(db, sessionOf(req).site.id, table.kind, sheetId) });
  });
  router.put(`${path}/:id`, async (req, res) => {
    const change = parsed(schema, req.body) as SheetChange<SheetOf<K>>;
    res.json(await keepSheet(db, sessionOf(req), table, parsed(entityId, req.params.id), change));
  });
  return router;
}

const owned = {
  machine: 'SELECT 1 FROM machine WHERE id = $1 AND site_id = $2',
  basket: 'SELECT 1 FROM basket WHERE id = $1 AND site_id = $2',
  coffee: 'SELECT 1 FROM coffee WHERE id = $1 AND site_id = $2',
  recipe: 'SELECT 1 FROM recipe_version WHERE recipe_id = $1 AND site_id = $2 LIMIT 1',
};

/** Refuses a sheet that names something of another café, or nothing at all. @throws ProblemError unknownPart */
export async function mustBeOurs(
  tx: EntityManager,
  siteId: string,
  kind: keyof typeof owned,
  namedId: string | null,
): Promise<void> {
  if (namedId === null) return;
  const found = await tx.query<object[]>(owned[kind], [namedId, siteId]);
  if (found.length === 0) throw problem('unknownPart');
}
