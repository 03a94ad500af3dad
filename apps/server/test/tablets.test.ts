import type { NewFact } from '@tempera/contract/journal';
import { seededRandom } from '@tempera/core/numbers';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { factOf, startTestServer, TestClient, type TestServer } from './harness.ts';

const TABLETS = 12;
const FACTS_EACH = 25;
/** So often an answer is lost on its way, and the tablet sends the same again. */
const LOST_ANSWERS = 0.2;

let test: TestServer;
beforeAll(async () => {
  test = await startTestServer();
});
afterAll(() => test.close());

describe('tablets that were alone for an hour', () => {
  it('bring everything at once: nothing is lost, nothing is there twice, and each one’s own order stands', async () => {
    const names = ['Ines', 'Tobin', 'Noor'] as const;
    const random = seededRandom(5);
    const tablets = await Promise.all(
      Array.from({ length: TABLETS }, async (_, i) => {
        const client = await new TestClient(test).signIn(names[i % names.length] ?? 'Ines');
        const bar = await client.bar();
        const siteId = bar.facts[0]!.siteId;
        const since = Date.now() - 3_600_000;
        const facts = Array.from({ length: FACTS_EACH }, (_, k): NewFact => ({
          ...factOf(bar, siteId, 'purge', { purgeG: 1 + i + k / 100 }),
          personId: client.personId,
          at: new Date(since + (k * 3_600_000) / FACTS_EACH).toISOString(),
        }));
        return { client, facts };
      }),
    );
    await Promise.all(
      tablets.map(async ({ client, facts }) => {
        for (const fact of facts) {
          const again = random() < LOST_ANSWERS;
          const { status } = await client.send('POST', '/api/facts', fact);
          expect(status).toBe(201);
          if (again) expect([200, 201]).toContain((await client.send('POST', '/api/facts', fact)).status);
        }
      }),
    );
    const sent = tablets.flatMap(({ facts }) => facts.map(({ id }) => id));
    const kept = await test.server.db.query<{ id: string; person: string; at: Date; seq: string }[]>(
      'SELECT id, at, seq FROM fact WHERE id = ANY($1) ORDER BY seq',
      [sent],
    );
    expect(kept).toHaveLength(TABLETS * FACTS_EACH);
    for (const { facts } of tablets) {
      const own = new Set(facts.map(({ id }) => id));
      expect(kept.filter(({ id }) => own.has(id)).map(({ id }) => id)).toEqual(facts.map(({ id }) => id));
    }
  });
});
