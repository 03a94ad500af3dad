import { usesOf } from '@tempera/core/coffee';
import { standingFacts, type FactOf } from '@tempera/core/facts';
import { stringify } from 'csv-stringify';
import type { DataSource } from 'typeorm';
import { FactEntity } from './entities.ts';
import { toRecorded } from './service.ts';

type Row = Record<string, string | number | null>;

interface Named {
  at: string;
  person: string;
  grinder: string;
  group: string | null;
}

const shotRow = (fact: FactOf<'shot'>, { at, person, grinder, group }: Named): Row => ({
  at,
  person,
  grinder,
  group,
  setting_marks: fact.body.setting,
  dose_g: fact.body.doseG,
  yield_g: fact.body.yieldG,
  time_s: fact.body.timeS,
  first_drop_s: fact.body.firstDropS,
  flaw: fact.body.flaw,
  measured_by: fact.body.measuredBy,
  id: fact.id,
});

const moveRow = (fact: FactOf<'collarMove'>, { at, person, grinder }: Named): Row => ({
  at,
  person,
  grinder,
  from_marks: fact.body.from,
  to_marks: fact.body.to,
  advised_marks: fact.body.advisedTo,
  id: fact.id,
});

/** A name that a spreadsheet would run as a formula is written as text. */
const asText = (value: string): string => (/^[=+\-@\t\r]/.test(value) ? `'${value}` : value);

async function names(db: DataSource, siteId: string): Promise<Map<string, string>> {
  const rows = await db.query<{ id: string; name: string }[]>(
    `SELECT id, name FROM person WHERE site_id = $1 UNION ALL SELECT id, name FROM grinder WHERE site_id = $1
     UNION ALL SELECT id, name FROM group_head WHERE site_id = $1`,
    [siteId],
  );
  return new Map(rows.map((row) => [row.id, asText(row.name)]));
}

/** All shots or all collar moves of a café as they now stand, oldest first, as CSV with a header line (RFC 4180). */
export async function exportCsv(
  db: DataSource,
  siteId: string,
  kind: 'shot' | 'collarMove',
): Promise<NodeJS.ReadableStream> {
  const [nameOf, rows] = await Promise.all([
    names(db, siteId),
    db.getRepository(FactEntity).findBy([
      { siteId, kind },
      { siteId, kind: 'correction' },
    ]),
  ]);
  const lines = standingFacts(rows.map(toRecorded)).flatMap((fact) => {
    if (fact.kind === 'step') return [];
    const named = {
      at: fact.at,
      person: nameOf.get(fact.personId) ?? '',
      grinder: nameOf.get(fact.grinderId) ?? '',
      group: fact.groupId === null ? null : (nameOf.get(fact.groupId) ?? ''),
    };
    if (fact.kind === 'shot') return [shotRow(fact, named)];
    return fact.kind === 'collarMove' ? [moveRow(fact, named)] : [];
  });
  return stringify(lines, {
    header: true,
    columns: kind === 'shot' ? SHOT_COLUMNS : MOVE_COLUMNS,
    record_delimiter: 'windows',
  });
}

/** Every lot of ground coffee that facts tell of, with where it went, oldest first, as CSV with a header line. */
export async function exportGrounds(db: DataSource, siteId: string): Promise<NodeJS.ReadableStream> {
  const [nameOf, rows] = await Promise.all([
    names(db, siteId),
    db.getRepository(FactEntity).findBy(GROUND_KINDS.map((kind) => ({ siteId, kind }))),
  ]);
  const lines = usesOf(standingFacts(rows.map(toRecorded))).map(({ atMs, grinderId, cause, grams }) => ({
    at: new Date(atMs).toISOString(),
    grinder: nameOf.get(grinderId) ?? '',
    cause,
    grams,
  }));
  return stringify(lines, { header: true, columns: ['at', 'grinder', 'cause', 'grams'], record_delimiter: 'windows' });
}
const GROUND_KINDS = ['dose', 'shot', 'purge', 'step', 'correction'] as const;

const SHOT_COLUMNS = [
  'at',
  'person',
  'grinder',
  'group',
  'setting_marks',
  'dose_g',
  'yield_g',
  'time_s',
  'first_drop_s',
  'flaw',
  'measured_by',
  'id',
];
const MOVE_COLUMNS = ['at', 'person', 'grinder', 'from_marks', 'to_marks', 'advised_marks', 'id'];
