import { Agent, request } from 'node:http';
import { MS_PER_SECOND } from '@tempera/core/numbers';
import pg from 'pg';
import { aShot } from '../http.ts';
import { quantile } from '../statistics.ts';
import type { Rates, Target } from './writes.ts';

/** A process that writes facts as fast as it is answered, and tells how fast that was. */

const WRITES = 640;
/** The two in turn, so that a machine that is busy with other things for a while slows both. */
const ROUNDS = 5;
/** A server that has just started is still being compiled. */
const TO_WARM = 800;
const CLIENTS = [1, 16];

async function measure({ base, cookie, bar, siteId, personId, databaseUrl }: Target): Promise<Rates> {
  const most = Math.max(...CLIENTS);
  const agent = new Agent({ keepAlive: true, maxSockets: most });
  const pool = new pg.Pool({ connectionString: databaseUrl, max: most });
  const post = (): Promise<void> => {
    const body = JSON.stringify(aShot(bar, siteId, personId));
    const headers = { cookie, 'content-type': 'application/json', 'content-length': Buffer.byteLength(body) };
    return new Promise((resolve, reject) => {
      const asked = request(`${base}/facts`, { agent, method: 'POST', headers }, (answer) => {
        answer.resume().once('end', resolve);
        if (answer.statusCode !== 201) reject(new Error(`a fact was answered by ${answer.statusCode}`));
      });
      asked.once('error', reject).end(body);
    });
  };
  const insert = async (): Promise<void> => {
    const { id, grinderId, groupId, body } = aShot(bar, siteId, personId);
    await pool.query(
      `INSERT INTO fact (id, site_id, kind, at, received_at, person_id, grinder_id, group_id, body, device_at)
       VALUES ($1, $2, 'shot', now(), now(), $3, $4, $5, $6, now())`,
      [id, siteId, personId, grinderId, groupId, JSON.stringify(body)],
    );
  };
  const rates: Rates = [];
  for (let i = 0; i < TO_WARM; i += 1) await Promise.all([insert(), post()]);
  for (const clients of CLIENTS) {
    const raws: number[] = [];
    const serveds: number[] = [];
    for (let round = 0; round < ROUNDS; round += 1) {
      raws.push(await rateOf(insert, clients));
      serveds.push(await rateOf(post, clients));
    }
    rates.push({ clients, raw: quantile(raws, 0.5), served: quantile(serveds, 0.5) });
  }
  await pool.end();
  agent.destroy();
  return rates;
}

async function rateOf(write: () => Promise<void>, clients: number): Promise<number> {
  const began = performance.now();
  await Promise.all(
    Array.from({ length: clients }, async () => {
      for (let i = 0; i < WRITES / clients; i += 1) await write();
    }),
  );
  return WRITES / ((performance.now() - began) / MS_PER_SECOND);
}

process.once('message', (target) => {
  void measure(target as Target).then((rates) => process.send?.(rates, () => process.disconnect()));
});
