import { simulateMorning } from '@tempera/core/practice';
import type { AnyFact } from '@tempera/core/journal';
import dayjs from 'dayjs';
import type { DataSource, EntityManager } from 'typeorm';
import { v5 as uuidFromName, v7 as uuidv7 } from 'uuid';
import {
  CounterEntity,
  FixtureEntity,
  GrinderEntity,
  GroupEntity,
  MachineEntity,
  type GrinderRow,
} from '../bar/index.ts';
import { RecipeVersionEntity, type RecipeVersionRow } from '../house/index.ts';
import { FactEntity } from '../journal/index.ts';
import { PersonEntity, SiteEntity, type PersonRow } from '../team/index.ts';
import { hashPin } from '../team/index.ts';

/** The made-up café that ships with Tempera: a bar in the glasshouse of a botanical garden. */

const NAMESPACE = '7c0e6f5a-53d1-4c1f-9d52-1f6a3f0b8e21';
const demoId = (name: string): string => uuidFromName(name, NAMESPACE);

const demoSiteId = demoId('site');

const people: { name: string; role: PersonRow['role']; pin: string }[] = [
  { name: 'Ines', role: 'head', pin: '2468' },
  { name: 'Tobin', role: 'barista', pin: '1357' },
  { name: 'Noor', role: 'barista', pin: '8642' },
  { name: 'Pell', role: 'trainee', pin: '7531' },
];

/** Names and PINs, as the demo prints them. */
export const demoSignIns = people.map(({ name, pin }) => ({ name, pin }));

/** PINs by person id; shown by the demo only. */
export const demoPins: Record<string, string> = Object.fromEntries(
  people.map(({ name, pin }) => [demoId(`person ${name}`), pin]),
);

const site = {
  id: demoSiteId,
  name: 'Quillwort Glasshouse',
  timeZone: 'Europe/Lisbon',
  roomWidthCm: 420,
  roomDepthCm: 200,
  sureness: 0.9,
  risk: 0.2,
};

const recipe = (
  name: string,
  numbers: Omit<RecipeVersionRow, 'id' | 'siteId' | 'recipeId' | 'name' | 'version'>,
): RecipeVersionRow => ({
  id: demoId(`recipe ${name} 1`),
  siteId: demoSiteId,
  recipeId: demoId(`recipe ${name}`),
  name,
  version: 1,
  ...numbers,
});

const recipes = [
  recipe('House double', {
    doseG: 18,
    doseToleranceG: 0.3,
    yieldG: 36,
    yieldToleranceG: 1.5,
    timeMinS: 25,
    timeMaxS: 30,
    firstDropMinS: 4,
    firstDropMaxS: 8,
  }),
  recipe('Guest double', {
    doseG: 17.5,
    doseToleranceG: 0.3,
    yieldG: 42,
    yieldToleranceG: 1.5,
    timeMinS: 26,
    timeMaxS: 31,
    firstDropMinS: 4,
    firstDropMaxS: 8,
  }),
  recipe('Decaf double', {
    doseG: 18,
    doseToleranceG: 0.4,
    yieldG: 34,
    yieldToleranceG: 2,
    timeMinS: 24,
    timeMaxS: 30,
    firstDropMinS: 4,
    firstDropMaxS: 8,
  }),
  recipe('Brewed by the group', {
    doseG: 20,
    doseToleranceG: 0.5,
    yieldG: 250,
    yieldToleranceG: 8,
    timeMinS: 60,
    timeMaxS: 70,
    firstDropMinS: 6,
    firstDropMaxS: 15,
  }),
];

const grinder = (
  name: string,
  coffee: string,
  recipeName: string,
  more: Omit<GrinderRow, 'id' | 'siteId' | 'name' | 'coffee' | 'recipeVersionId' | 'widthCm' | 'depthCm'>,
): GrinderRow => ({
  id: demoId(`grinder ${name}`),
  siteId: demoSiteId,
  name,
  coffee,
  recipeVersionId: demoId(`recipe ${recipeName} 1`),
  widthCm: 24,
  depthCm: 40,
  ...more,
});

const grinders: GrinderRow[] = [
  grinder('House', 'Canopy blend', 'House double', {
    xCm: 26,
    yCm: 14,
    stepMarks: 1,
    finer: 'down',
    dialMin: 1,
    dialMax: 60,
    seedSetting: 30,
    secondsPerMark: 2.5,
    retentionG: null,
    rateGps: 2.1,
  }),
  grinder('Guest', 'Lantern Moss', 'Guest double', {
    xCm: 98,
    yCm: 14,
    stepMarks: 0.1,
    finer: 'down',
    dialMin: 0,
    dialMax: 12,
    seedSetting: 5,
    secondsPerMark: 14,
    retentionG: 3,
    rateGps: 2.4,
  }),
  grinder('Decaf', 'Dusk decaf', 'Decaf double', {
    xCm: 190,
    yCm: 146,
    stepMarks: 1,
    finer: 'down',
    dialMin: 1,
    dialMax: 40,
    seedSetting: 18,
    secondsPerMark: 3,
    retentionG: null,
    rateGps: 1.8,
  }),
  grinder('Brew', 'Rill, brewed', 'Brewed by the group', {
    xCm: 264,
    yCm: 146,
    stepMarks: 1,
    finer: 'up',
    dialMin: 1,
    dialMax: 30,
    seedSetting: 12,
    secondsPerMark: 6,
    retentionG: 5,
    rateGps: 2.6,
  }),
];

const machines = [
  { name: 'Fern', groups: ['1', '2', '3'], xCm: 158, yCm: 4, widthCm: 126 },
  { name: 'Moss', groups: ['4', '5'], xCm: 52, yCm: 144, widthCm: 88 },
];

const counters = [
  { id: demoId('counter long'), siteId: demoSiteId, faces: 'down' as const, xCm: 0, yCm: 0, widthCm: 420, depthCm: 60 },
  {
    id: demoId('counter short'),
    siteId: demoSiteId,
    faces: 'up' as const,
    xCm: 30,
    yCm: 140,
    widthCm: 290,
    depthCm: 60,
  },
];

const fixtures = [
  { kind: 'knockBox', name: 'Knock box', xCm: 298, yCm: 30, widthCm: 18, depthCm: 26 },
  { kind: 'scale', name: 'Scale', xCm: 328, yCm: 36, widthCm: 18, depthCm: 18 },
  { kind: 'milk', name: 'Milk', xCm: 358, yCm: 14, widthCm: 50, depthCm: 40 },
] as const;

/** Loads the demo café into an empty database; does nothing where it already is. */
export async function loadDemoCafe(db: DataSource, now = new Date()): Promise<void> {
  if (await db.getRepository(SiteEntity).existsBy({ id: demoSiteId })) return;
  const pinHashes = await Promise.all(people.map(({ pin }) => hashPin(pin)));
  await db.transaction(async (tx) => {
    await tx.insert(SiteEntity, site);
    await tx.insert(
      PersonEntity,
      people.map(({ name, role }, i) => ({
        id: demoId(`person ${name}`),
        siteId: site.id,
        name,
        role,
        pinHash: pinHashes[i] ?? '',
        failedAttempts: 0,
        waitUntil: null,
      })),
    );
    await tx.insert(RecipeVersionEntity, recipes);
    await loadBar(tx);
    await loadHistory(tx, now);
  });
}

async function loadBar(tx: EntityManager): Promise<void> {
  const place = { siteId: site.id, depthCm: 52 };
  await tx.insert(CounterEntity, counters);
  await tx.insert(GrinderEntity, grinders);
  await tx.insert(
    MachineEntity,
    machines.map(({ name, xCm, yCm, widthCm }) => ({
      id: demoId(`machine ${name}`),
      name,
      xCm,
      yCm,
      widthCm,
      ...place,
    })),
  );
  await tx.insert(
    GroupEntity,
    machines.flatMap(({ name, groups }) =>
      groups.map((group, i) => ({
        id: demoId(`group ${group}`),
        siteId: site.id,
        machineId: demoId(`machine ${name}`),
        name: `Group ${group}`,
        position: i + 1,
      })),
    ),
  );
  await tx.insert(
    FixtureEntity,
    fixtures.map((fixture) => ({ id: demoId(fixture.name), siteId: site.id, ...fixture })),
  );
}

/** Who dialled what, how long before the demo's first start. The last of the guest grinder still holds; the rest are due. */
const mornings = [
  ...[4, 3, 2, 1].flatMap((daysAgo) => [
    { name: 'House', group: '1', daysAgo, atMin: 5, by: daysAgo % 2 ? 'Ines' : 'Tobin' },
    { name: 'Guest', group: '2', daysAgo, atMin: 17, by: 'Ines' },
    { name: 'Decaf', group: '4', daysAgo, atMin: 9, by: 'Noor' },
  ]),
  { name: 'Guest', group: '2', daysAgo: 0, atMin: -25, by: 'Ines' },
];
/** After closing somebody turned the house grinder's collar and told nobody. */
function movedAtNight(newId: (atMs: number) => string, now: Date, factsOf: Map<string, AnyFact[]>): AnyFact {
  const house = demoId('grinder House');
  const lock = factsOf.get(house)?.findLast((fact) => fact.kind === 'lock');
  const from = lock?.body.setting ?? 30;
  const at = dayjs(now).subtract(9, 'hour');
  const body = { from, to: from + 3, advisedTo: null };
  return { id: newId(at.valueOf()), kind: 'collarMove', at: at.toISOString(), grinderId: house, groupId: null, body };
}

const MS_PER_MINUTE = 60_000;
const SEQUENCE_BITS = 0xffffffff;

/** A short history from the simulated bar, ending just before the demo's first start. */
async function loadHistory(tx: EntityManager, now: Date): Promise<void> {
  const factsOf = new Map<string, AnyFact[]>();
  const rows: { fact: AnyFact; personId: string }[] = [];
  let made = 0;
  const newId = (atMs: number): string => uuidv7({ msecs: atMs, seq: (made += 1) & SEQUENCE_BITS });
  for (const { name, group, daysAgo, atMin, by } of mornings) {
    const row = grinders.find((candidate) => candidate.name === name);
    const target = recipes.find((candidate) => candidate.id === row?.recipeVersionId);
    if (!row || !target) continue;
    const dial = { stepMarks: row.stepMarks, finer: row.finer, range: { min: row.dialMin, max: row.dialMax } };
    const recipeTarget = {
      ...target,
      timeS: { min: target.timeMinS, max: target.timeMaxS },
      recipeVersionId: target.id,
    };
    const before = factsOf.get(row.id) ?? [];
    const facts = simulateMorning(
      {
        station: {
          siteId: site.id,
          groupId: demoId(`group ${group}`),
          grinder: { ...row, dial },
          recipe: recipeTarget,
        },
        grinder: { ...row, dial },
        recipe: recipeTarget,
        house: site,
        startMs: dayjs(now).subtract(daysAgo, 'day').valueOf() + atMin * MS_PER_MINUTE,
        newId,
      },
      before,
    );
    factsOf.set(row.id, [...before, ...facts]);
    rows.push(...facts.map((fact) => ({ fact, personId: demoId(`person ${by}`) })));
  }
  rows.push({ fact: movedAtNight(newId, now, factsOf), personId: demoId('person Tobin') });
  rows.sort((a, b) => Date.parse(a.fact.at) - Date.parse(b.fact.at));
  await tx.insert(
    FactEntity,
    rows.map(({ fact, personId }) => ({
      ...fact,
      siteId: site.id,
      personId,
      at: new Date(fact.at),
      receivedAt: new Date(fact.at),
    })),
  );
}
