import type { Recipe, RecipeChange, RecipeHistory, RecipeVersion } from '@tempera/contract/house';
import type { Search } from '@tempera/contract/search';
import type { Page } from '@tempera/contract/sheet';
import { randomUUID } from 'node:crypto';
import { addDays } from '@tempera/core/house';
import { DataSource } from 'typeorm';
import { v4 as uuidv4 } from 'uuid';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { createDataSource } from '../src/app/db.ts';
import { FirstTables1795000000000 } from '../src/app/migrations/1795000000000-first-tables.ts';
import { HousePolicy1795600000000 } from '../src/app/migrations/1795600000000-house-policy.ts';
import { factOf, freshDatabase, shotBody, startTestServer, TestClient, type TestServer } from './harness.ts';

let test: TestServer;
let ines: TestClient;
beforeAll(async () => {
  test = await startTestServer();
  ines = await new TestClient(test).signIn('Ines');
});
afterAll(() => test.close());

const today = new Date().toISOString().slice(0, 10);
const houseRecipe = async (): Promise<RecipeVersion> =>
  (await ines.bar()).grinders.find(({ name }) => name === 'House')!.recipe;
const history = async (recipeId: string): Promise<RecipeHistory> =>
  (await ines.get<RecipeHistory>(`/api/house/recipes/${recipeId}`)).body;

function recipeOf(version: RecipeVersion): Recipe {
  const { id, recipeId, version: _number, reason, validFrom, approvedBy, writtenAt, ...recipe } = version;
  return recipe;
}
const changeOf = (version: RecipeVersion, change: Partial<Recipe>, more: Partial<RecipeChange> = {}): RecipeChange => ({
  id: uuidv4(),
  basedOn: version.version,
  reason: 'sharper since the new crop',
  validFrom: addDays(today, -1),
  recipe: { ...recipeOf(version), ...change },
  ...more,
});
const write = (client: TestClient, recipeId: string, change: object) =>
  client.send<RecipeHistory>('POST', `/api/house/recipes/${recipeId}`, change);

describe('a recipe', () => {
  it('gets a new version with a reason; a shot keeps the one it was judged by', async () => {
    const before = await houseRecipe();
    const bar = await ines.bar();
    const shot = factOf(bar, bar.facts[0]!.siteId, 'shot', shotBody(bar));
    await ines.send('POST', '/api/facts', shot);
    const { status, body } = await write(ines, before.recipeId, changeOf(before, { yieldG: 37.5 }));
    expect(status).toBe(201);
    expect(body.versions[0]).toMatchObject({
      version: before.version + 1,
      yieldG: 37.5,
      reason: 'sharper since the new crop',
      approvedBy: 'Ines',
    });
    expect(body.inForce).toBe(before.version + 1);
    expect(body.versions[1]).toEqual(before);
    expect((await houseRecipe()).yieldG).toBe(37.5);
    const kept = (await ines.bar()).facts.find(({ id }) => id === shot.id);
    expect(kept?.body).toMatchObject({ recipeVersionId: before.id });
  });

  it('waits until its day has come', async () => {
    const before = await houseRecipe();
    await write(ines, before.recipeId, changeOf(before, { doseG: 18.5 }, { validFrom: addDays(today, 2) }));
    expect((await houseRecipe()).doseG).toBe(before.doseG);
    expect((await history(before.recipeId)).inForce).toBe(before.version);
  });

  it('answers the same version sent twice as done, and tells the slower of two', async () => {
    const guest = (await ines.bar()).grinders.find(({ name }) => name === 'Guest')!.recipe;
    const change = changeOf(guest, { tempC: 92.5 });
    await write(ines, guest.recipeId, change);
    expect((await write(ines, guest.recipeId, change)).status).toBe(201);
    const late = await write(ines, guest.recipeId, changeOf(guest, { tempC: 95 }));
    expect([late.status, late.problem.code]).toEqual([409, 'changedMeanwhile']);
    expect((await history(guest.recipeId)).versions.filter(({ version }) => version > guest.version)).toHaveLength(1);
  });

  it('takes one of many that arrive at once', async () => {
    const decaf = (await ines.bar()).grinders.find(({ name }) => name === 'Decaf')!.recipe;
    const answers = await Promise.all(
      [33, 34, 35, 36].map((yieldG) => write(ines, decaf.recipeId, changeOf(decaf, { yieldG }))),
    );
    expect(answers.map(({ status }) => status).sort()).toEqual([201, 409, 409, 409]);
  });

  it('is written by a head barista only', async () => {
    const tobin = await new TestClient(test).signIn('Tobin');
    const before = await houseRecipe();
    expect((await write(tobin, before.recipeId, changeOf(before, { doseG: 17 }))).problem.code).toBe('headOnly');
  });

  it.each<[string, Partial<Recipe>, string]>([
    ['a window that ends before it begins', { timeMinS: 30, timeMaxS: 25 }, 'recipe.timeMaxS'],
    ['a dose beyond all baskets', { doseG: 42 }, 'recipe.doseG'],
    ['water above the boil of any sea', { tempC: 101 }, 'recipe.tempC'],
    ['a soak that is none', { timeFrom: 'soakEnd', soakS: 0, pauseS: 0 }, 'recipe.soakS'],
    ['a first drop after the shot', { firstDropMaxS: 26 }, 'recipe.firstDropMaxS'],
    ['an empty step', { prepSteps: [' '] }, 'recipe.prepSteps.0'],
    [
      'a taste upside down',
      { taste: { sourBitter: { low: 6, high: 4 }, weakStrong: { low: 4, high: 6 } } },
      'recipe.taste.sourBitter.high',
    ],
  ])('refuses %s at its field', async (_name, change, path) => {
    const before = await houseRecipe();
    const { status, problem } = await write(ines, before.recipeId, changeOf(before, change));
    expect([status, problem.fields?.map((field) => field.path)]).toEqual([422, [path]]);
  });

  it('wants a reason, and a basket of this house', async () => {
    const before = await houseRecipe();
    expect((await write(ines, before.recipeId, changeOf(before, {}, { reason: '' }))).status).toBe(422);
    const stranger = changeOf(before, { basketId: uuidv4() });
    expect((await write(ines, before.recipeId, stranger)).problem.code).toBe('unknownPart');
  });

  it('is found missing something by the cross-checks, in a sentence', async () => {
    const recipeId = uuidv4();
    const first = changeOf(await houseRecipe(), { name: 'Winter guest', doseG: 21.5, tempC: 99.9 }, { basedOn: 0 });
    expect((await write(ines, recipeId, first)).status).toBe(201);
    const { body } = await ines.get<{ findings: { kind: string; on: { id: string } }[] }>('/api/house/findings');
    expect(body.findings.filter(({ on }) => on.id === recipeId).map(({ kind }) => kind)).toEqual([
      'doseOverBasket',
      'boils',
    ]);
  });
});

describe('five hundred recipes', () => {
  it('are searched, sorted and paged on the server', async () => {
    const before = await houseRecipe();
    for (let batch = 0; batch < 10; batch += 1) {
      await Promise.all(
        Array.from({ length: 50 }, (_, i) => {
          const name = `Shelf ${String(batch * 50 + i).padStart(3, '0')}`;
          const change = changeOf(before, { name, doseG: 16 + ((batch * 50 + i) % 7) / 2 }, { basedOn: 0 });
          return write(ines, uuidv4(), change);
        }),
      );
    }
    const page = async (query: string): Promise<Page<RecipeVersion>> =>
      (await ines.get<Page<RecipeVersion>>(`/api/house/recipes?${query}`)).body;
    const second = await page('search=shelf&perPage=20&page=2');
    expect(second.total).toBe(500);
    expect(second.rows.map(({ name }) => name).slice(0, 2)).toEqual(['Shelf 020', 'Shelf 021']);
    const heavy = await page('search=Shelf&sort=doseG&descending=true&perPage=5');
    expect(heavy.rows.every(({ doseG }) => doseG === 19)).toBe(true);
    expect((await page('search=100%25')).total).toBe(0);
    expect((await ines.get('/api/house/recipes?sort=colour')).status).toBe(422);
    const { body } = await ines.get<Search>('/api/search?q=shelf%20012');
    expect(body.hits).toEqual([expect.objectContaining({ kind: 'recipe', name: 'Shelf 012' })]);
  });
});

describe('an older database', () => {
  it('turns what its grinders held into coffees with their recipes', async () => {
    const url = await freshDatabase(`old_${randomUUID().replaceAll('-', '')}`);
    const old = await new DataSource({
      type: 'postgres',
      url,
      migrations: [FirstTables1795000000000, HousePolicy1795600000000],
      migrationsTableName: 'migration',
    }).initialize();
    await old.runMigrations();
    const [site, recipe, version] = [uuidv4(), uuidv4(), uuidv4()];
    await old.query(`INSERT INTO site (id, name, time_zone, room_width_cm, room_depth_cm)
                     VALUES ('${site}', 'Old bar', 'Europe/Lisbon', 300, 200)`);
    await old.query(`INSERT INTO recipe_version VALUES ('${version}', '${site}', '${recipe}', 'Double', 1,
                     18, 0.3, 36, 1.5, 25, 30, 4, 8)`);
    for (const name of ['Left', 'Right']) {
      await old.query(`INSERT INTO grinder (id, site_id, name, x_cm, y_cm, width_cm, depth_cm, step_marks, finer,
                         dial_min, dial_max, seed_setting, coffee, recipe_version_id)
                       VALUES ('${uuidv4()}', '${site}', '${name}', 0, 0, 24, 40, 0.5, 'up', 0, 20, 9, 'Attic blend', '${version}')`);
    }
    await old.destroy();
    const now = await createDataSource(url).initialize();
    await now.runMigrations();
    const rows = await now.query<object[]>(
      `SELECT g.name, g.stepped, c.name AS coffee, c.recipe_id AS "recipeId", v.time_from AS "timeFrom"
         FROM grinder g JOIN coffee c ON c.id = g.first_coffee_id
         JOIN recipe_version v ON v.recipe_id = c.recipe_id ORDER BY g.name`,
    );
    const held = { stepped: false, coffee: 'Attic blend', recipeId: recipe, timeFrom: 'pump' };
    expect(rows).toEqual([
      { name: 'Left', ...held },
      { name: 'Right', ...held },
    ]);
    await now.destroy();
  });
});
