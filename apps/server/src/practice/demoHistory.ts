import { simulateMorning } from '@tempera/core/practice';
import type { AnyFact } from '@tempera/core/journal';
import dayjs from 'dayjs';
import type { EntityManager } from 'typeorm';
import { v7 as uuidv7 } from 'uuid';
import { FactEntity } from '../journal/index.ts';
import { demoId, grinders, policy, recipes, site } from './demoBar.ts';

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
export async function loadHistory(tx: EntityManager, now: Date): Promise<void> {
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
        house: policy,
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
