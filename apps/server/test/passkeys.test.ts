import type { PasskeyOptions, UsedPasskey } from '@tempera/contract/passkeys';
import type { Session } from '@tempera/contract/team';
import pg from 'pg';
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import { Authenticator } from './authenticator.ts';
import { startTestServer, TestClient, type TestServer } from './harness.ts';

let test: TestServer;
let ines: TestClient;
let origin: string;
beforeAll(async () => {
  test = await startTestServer();
  ines = await new TestClient(test).signIn('Ines');
  origin = test.base;
});
afterAll(() => test.close());

const options = async (client: TestClient, path = '/api/session/passkey/options'): Promise<PasskeyOptions> =>
  (await client.send<PasskeyOptions>('POST', path, undefined, { origin })).body;
const keep = async (client: TestClient, device: Authenticator, made?: ReturnType<Authenticator['make']>) =>
  client.send<{ passkeys: { id: string }[] }>(
    'POST',
    '/api/session/passkeys',
    { name: 'Laptop', made: made ?? device.make(await options(client, '/api/session/passkeys/options')) },
    { origin },
  );
const comeIn = (used: UsedPasskey, client = new TestClient(test)) =>
  client.send<Session>('POST', '/api/session/passkey', used, { origin });

describe('a passkey', () => {
  let device: Authenticator;
  let id: string;
  beforeEach(async () => {
    device = new Authenticator(origin);
    const kept = await keep(ines, device);
    expect(kept.status).toBe(201);
    id = kept.body.passkeys[0]!.id;
  });

  it('lets its owner in, once for each time that it is asked for', async () => {
    const used = device.use(await options(new TestClient(test)));
    const entered = await comeIn(used);
    expect(entered.status).toBe(201);
    expect(entered.body.person.name).toBe('Ines');
    const again = await comeIn(used);
    expect([again.status, again.problem.code]).toEqual([401, 'wrongPasskey']);
  });

  it('is refused where it was not asked for, where it is shown elsewhere, by another key, or by a device that did not know its owner', async () => {
    const asked = await options(new TestClient(test));
    const refusals = [
      device.use({ challenge: Buffer.from('of no server').toString('base64url') }),
      // A challenge for making one is none for coming in.
      device.use(await options(ines, '/api/session/passkeys/options')),
      { ...new Authenticator(origin).use(asked), id: device.use(asked).id },
      device.use(await options(new TestClient(test)), false),
    ];
    for (const used of refusals) {
      const { status, problem } = await comeIn(used);
      expect([status, problem.code]).toEqual([401, 'wrongPasskey']);
    }
    const elsewhere = new Authenticator('https://tempera.example');
    const made = elsewhere.make(await options(ines, '/api/session/passkeys/options'));
    expect((await keep(ines, elsewhere, made)).problem.code).toBe('wrongPasskey');
  });

  it('shows that it is still its owner, and is of no use in another’s hands', async () => {
    const away = new TestClient(test);
    await comeIn(device.use(await options(away)), away);
    const proof = await away.send(
      'POST',
      '/api/session/proof',
      { passkey: device.use(await options(away)) },
      { origin },
    );
    expect(proof.status).toBe(200);
    const tobin = await new TestClient(test).signIn('Tobin');
    const passkey = device.use(await options(tobin));
    const foreign = await tobin.send('POST', '/api/session/proof', { passkey }, { origin });
    expect([foreign.status, foreign.problem.code]).toEqual([401, 'wrongPasskey']);
  });

  it('opens nothing once it is removed, and another’s cannot be', async () => {
    const bob = await new TestClient(test).signIn('Pell');
    const refused = await bob.send('DELETE', `/api/session/passkeys/${id}`);
    expect([403, 404]).toContain(refused.status);
    expect((await ines.send('DELETE', `/api/session/passkeys/${id}`)).status).toBe(204);
    const { problem } = await comeIn(device.use(await options(new TestClient(test))));
    expect(problem.code).toBe('wrongPasskey');
  });

  it('is for a head or the office, with a PIN of just now', async () => {
    const tobin = await new TestClient(test).signIn('Tobin');
    const refused = await tobin.send('POST', '/api/session/passkeys/options', undefined, { origin });
    expect([refused.status, refused.problem.code]).toEqual([403, 'headOrOffice']);
    const owner = new pg.Client({ connectionString: test.databaseUrl });
    await owner.connect();
    await owner.query(`UPDATE session SET proven_at = now() - interval '1 hour'`);
    await owner.end();
    const stale = await ines.send('POST', '/api/session/passkeys/options', undefined, { origin });
    expect([stale.status, stale.problem.code]).toEqual([403, 'pinAgain']);
  });
});
