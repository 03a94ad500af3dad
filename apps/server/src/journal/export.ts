import { Readable } from 'node:stream';
import { usesInTurn, type Use } from '@tempera/core/coffee';
import {
  factsWhere,
  standingFacts,
  type Entry,
  type FactOf,
  type StandingFact,
  type StandingFacts,
  type StepFact,
  type StepOf,
} from '@tempera/core/facts';
import { businessDay, momentOf } from '@tempera/core/house';
import { aimAfter, aimChangesOf, sheetOf, tasteAxes, type AimChange } from '@tempera/core/taste';
import { stringify } from 'csv-stringify/sync';
import type { DataSource } from 'typeorm';
import { SiteEntity, type SiteRow } from '../team/index.ts';
import { entryColumns, houseAt } from './asEntry.ts';
import { undoersOf } from './undoing.ts';

type Row = Record<string, string | number | null>;

/** A name that a spreadsheet would run as a formula is written as text. */
const asText = (value: string): string => (/^[=+\-@\t\r]/.test(value) ? `'${value}` : value);

/** What a fact is written with: names of people and stations, recipes, and what taste changed. */
interface Context {
  nameOf: (id: string | null) => string;
  recipeOf: (id: string) => RecipeAim | null;
  changesAt: (grinderId: string, atMs: number) => AimChange[];
}

interface RecipeAim {
  name: string;
  version: number;
  doseG: number;
  yieldG: number;
  tempC: number;
  timeMinS: number;
  timeMaxS: number;
}

const changeWord = ({ lever, by }: AimChange): string => `${lever} ${by > 0 ? '+' : ''}${by}`;

function shotRow(fact: FactOf<'shot'>, context: Context): Row {
  const recipe = context.recipeOf(fact.body.recipeVersionId);
  const changes = context.changesAt(fact.grinderId, Date.parse(fact.at));
  const aim = recipe && aimAfter(recipe, changes);
  return {
    setting_marks: fact.body.setting,
    dose_g: fact.body.doseG,
    yield_g: fact.body.yieldG,
    time_s: fact.body.timeS,
    first_drop_s: fact.body.firstDropS,
    flaw: fact.body.flaw,
    measured_by: fact.body.measuredBy,
    in_service: fact.body.service === true ? 1 : 0,
    recipe: recipe && asText(recipe.name),
    recipe_version: recipe?.version ?? null,
    aim_dose_g: aim?.doseG ?? null,
    aim_yield_g: aim?.yieldG ?? null,
    aim_temp_c: aim?.tempC ?? null,
    aim_time_min_s: aim?.timeMinS ?? null,
    aim_time_max_s: aim?.timeMaxS ?? null,
    changed_for_taste: changes.map(changeWord).join('; '),
    id: fact.id,
    // Last, the columns being in order elsewhere: an object that grows after it was spread into costs a hundred times as much.
    ...named(fact, context),
  };
}

const named = ({ at, personId, grinderId, groupId }: StandingFact, { nameOf }: Context): Row => ({
  at,
  person: nameOf(personId),
  grinder: nameOf(grinderId),
  group: groupId === null ? null : nameOf(groupId),
});

const moveRow = (fact: FactOf<'collarMove'>, context: Context): Row => ({
  ...named(fact, context),
  from_marks: fact.body.from,
  to_marks: fact.body.to,
  advised_marks: fact.body.advisedTo,
  in_service: fact.body.service === true ? 1 : 0,
  id: fact.id,
});

function tastingRow(fact: StepFact<StepOf<'tasted'>>, context: Context): Row {
  const { grinderId, tasterId, notes, tdsPct, than, inMilk, shotId } = fact.body;
  const { tasted } = sheetOf(fact);
  return {
    at: fact.at,
    grinder: context.nameOf(grinderId),
    taster: context.nameOf(tasterId),
    told_by: tasterId === fact.personId ? '' : context.nameOf(fact.personId),
    ...tasted,
    than_last: than ?? null,
    in_milk: inMilk === true ? 1 : 0,
    notes: asText(notes.join('; ')),
    tds_pct: tdsPct,
    changed_for_taste: context.changesAt(grinderId, Date.parse(fact.at)).map(changeWord).join('; '),
    shot_id: shotId ?? null,
    id: fact.id,
  };
}

const WHERE = ['at', 'person', 'grinder', 'group'];

/** Each kind of export: which facts, as SQL of `f`; its columns; a line of one fact. */
const exports = {
  shots: {
    of: `f.kind = 'shot'`,
    columns: [
      ...WHERE,
      ...['setting_marks', 'dose_g', 'yield_g', 'time_s', 'first_drop_s', 'flaw', 'measured_by', 'in_service'],
      ...['recipe', 'recipe_version', 'aim_dose_g', 'aim_yield_g', 'aim_temp_c', 'aim_time_min_s', 'aim_time_max_s'],
      ...['changed_for_taste', 'id'],
    ],
    row: (fact: StandingFact, context: Context) => (fact.kind === 'shot' ? shotRow(fact, context) : null),
  },
  moves: {
    of: `f.kind = 'collarMove'`,
    columns: [...WHERE, 'from_marks', 'to_marks', 'advised_marks', 'in_service', 'id'],
    row: (fact: StandingFact, context: Context) => (fact.kind === 'collarMove' ? moveRow(fact, context) : null),
  },
  tastings: {
    of: `f.kind = 'step' AND f.body->>'step' = 'tasted'`,
    columns: [
      ...['at', 'grinder', 'taster', 'told_by', ...tasteAxes, 'than_last', 'in_milk', 'notes', 'tds_pct'],
      ...['changed_for_taste', 'shot_id', 'id'],
    ],
    row: (fact: StandingFact, context: Context) => (isTasting(fact) ? tastingRow(fact, context) : null),
  },
};

const isTasting = (fact: StandingFact): fact is StepFact<StepOf<'tasted'>> =>
  fact.kind === 'step' && fact.body.step === 'tasted';

/** So many facts are read, and in memory, at once; few enough that nobody at the bar waits for a slice to be written. */
const SLICE = 100;

/**
 * All shots, collar moves or tastings of a café as they now stand, oldest first, as CSV with a header line (RFC 4180). Read and sent
 * slice by slice, without traces: however long the history is, a slice of it is in memory.
 */
export async function exportCsv(
  db: DataSource,
  siteId: string,
  kind: keyof typeof exports,
): Promise<NodeJS.ReadableStream> {
  const { of, columns, row } = exports[kind];
  const context = await contextOf(db, siteId);
  async function* lines(): AsyncGenerator<Row[]> {
    for await (const facts of slices(db, siteId, of))
      yield facts.map((fact) => row(fact, context)).filter((line) => line !== null);
  }
  return csvOf(lines(), columns);
}

/** Slices of rows as CSV, one after another as they are asked for. */
function csvOf(slices: AsyncGenerator<Row[]>, columns: string[]): NodeJS.ReadableStream {
  const written = (rows: Row[], header: boolean): string =>
    stringify(rows, { header, columns, record_delimiter: 'windows' });
  async function* text(): AsyncGenerator<string> {
    yield written([], true);
    for await (const rows of slices) yield written(rows, false);
  }
  return Readable.from(text(), { highWaterMark: 1 });
}

const HOUSE_AT = houseAt('f');
const FACT = entryColumns('f');

/**
 * What stands of these facts, by keyset over the house's own order; corrections are looked up slice by slice. The place is
 * kept as the database wrote it: its moments are finer than a millisecond, and a rounded one would read a fact twice.
 */
async function* slices(db: DataSource, siteId: string, of: string): AsyncGenerator<StandingFacts> {
  let [place, id] = ['-infinity', '00000000-0000-0000-0000-000000000000'];
  for (;;) {
    const rows = await db.query<(Entry & { place: string })[]>(
      `SELECT ${FACT}, ${HOUSE_AT}::text AS place FROM fact f
        WHERE f.site_id = $1 AND ${of} AND (${HOUSE_AT}, f.id) > ($2::timestamptz, $3::uuid)
        ORDER BY ${HOUSE_AT}, f.id LIMIT ${SLICE}`,
      [siteId, place, id],
    );
    const last = rows.at(-1);
    if (!last) return;
    const corrections = await undoersOf(
      db,
      rows.map((row) => row.id),
    );
    yield standingFacts([...rows, ...corrections]);
    ({ place, id } = last);
  }
}

async function contextOf(db: DataSource, siteId: string): Promise<Context> {
  const [site, names, recipes, taste] = await Promise.all([
    db.getRepository(SiteEntity).findOneByOrFail({ id: siteId }),
    namesOf(db, siteId),
    db.query<(RecipeAim & { id: string })[]>(
      `SELECT id, name, version, dose_g AS "doseG", yield_g AS "yieldG", temp_c AS "tempC",
              time_min_s AS "timeMinS", time_max_s AS "timeMaxS" FROM recipe_version WHERE site_id = $1`,
      [siteId],
    ),
    tasteFacts(db, siteId),
  ]);
  const byId = new Map(recipes.map((recipe) => [recipe.id, recipe]));
  return {
    nameOf: (id) => (id === null ? '' : (names.get(id) ?? '')),
    recipeOf: (id) => byId.get(id) ?? null,
    changesAt: changesAt(site, taste),
  };
}

/** What taste had changed at a grinder by a moment of its day; a day without any is answered without looking. */
function changesAt({ timeZone, dayStartsMin }: SiteRow, taste: StandingFacts): Context['changesAt'] {
  const dayOf = (atMs: number): string => businessDay(atMs, timeZone, dayStartsMin);
  const byDay = new Map<string, StandingFacts>();
  // What was kept is in force on the day after too.
  const daysOf = (fact: StandingFact): string[] => {
    const written = dayOf(Date.parse(fact.at));
    if (fact.kind !== 'step' || fact.body.step !== 'aimKept') return [written];
    return [written, dayOf(Date.parse(fact.body.holdsUntil) - 1)];
  };
  for (const day of new Set(taste.flatMap(daysOf))) {
    byDay.set(
      day,
      factsWhere(taste, (fact) => daysOf(fact).includes(day)),
    );
  }
  return (grinderId, atMs) => {
    const facts = byDay.get(dayOf(atMs));
    if (!facts) return [];
    const until = factsWhere(facts, ({ at }) => Date.parse(at) <= atMs);
    return aimChangesOf(until, grinderId, momentOf(dayOf(atMs), dayStartsMin, timeZone));
  };
}

/** Changes for taste, and the other coffees that ended them. */
async function tasteFacts(db: DataSource, siteId: string): Promise<StandingFacts> {
  const rows = await db.query<Entry[]>(
    `SELECT ${FACT} FROM fact f
      WHERE f.site_id = $1
        AND ((f.kind = 'step' AND f.body->>'step' IN ('tasteSettled', 'aimKept', 'takenBack'))
             OR (f.kind = 'newBag' AND f.body->>'otherCoffee' = 'true'))`,
    [siteId],
  );
  return standingFacts(rows);
}

async function namesOf(db: DataSource, siteId: string): Promise<Map<string, string>> {
  const rows = await db.query<{ id: string; name: string }[]>(
    `SELECT id, name FROM person WHERE site_id = $1 UNION ALL SELECT id, name FROM grinder WHERE site_id = $1
     UNION ALL SELECT id, name FROM group_head WHERE site_id = $1`,
    [siteId],
  );
  return new Map(rows.map((row) => [row.id, asText(row.name)]));
}

/** Every lot of ground coffee that facts tell of, with where it went, oldest first, as CSV with a header line; sent as it is read. */
export async function exportGrounds(db: DataSource, siteId: string): Promise<NodeJS.ReadableStream> {
  const names = await namesOf(db, siteId);
  async function* lines(): AsyncGenerator<Row[]> {
    const told = usesInTurn();
    const row = ({ atMs, grinderId, cause, grams }: Use): Row => ({
      at: new Date(atMs).toISOString(),
      grinder: names.get(grinderId) ?? '',
      cause,
      grams,
    });
    for await (const facts of slices(db, siteId, GROUND)) yield [...told.take(facts)].map(row);
    yield [...told.rest()].map(row);
  }
  return csvOf(lines(), ['at', 'grinder', 'cause', 'grams']);
}
const GROUND = `(f.kind IN ('dose', 'shot', 'purge') OR (f.kind = 'step' AND f.body->>'step' = 'doseTime'))`;
