import { spawnSync } from 'node:child_process';
import { existsSync, mkdtempSync, readFileSync, rmSync, statSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import pg from 'pg';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { removeCluster, startCluster, type Cluster } from './cluster.ts';
import { SetUpError } from './problems.ts';
import { forgetRun, noteRun, refuseSecondRun } from './runFile.ts';

const PERMISSIONS = 0o777;
let folder: string;

beforeAll(() => {
  folder = mkdtempSync(path.join(tmpdir(), 'tempera-cluster-'));
});
afterAll(() => {
  removeCluster(folder);
  rmSync(folder, { recursive: true, force: true });
});

const start = (): Promise<Cluster> => startCluster({ folder, durable: false });
const pidFile = (): string => path.join(folder, 'pg/postmaster.pid');

async function ask<T extends object>(url: string, sql: string): Promise<T[]> {
  const client = new pg.Client({ connectionString: url });
  await client.connect();
  try {
    return (await client.query<T>(sql)).rows;
  } finally {
    await client.end();
  }
}

describe('the private cluster', () => {
  it('listens on loopback only, wants its password by scram, and keeps it to its owner', async () => {
    const cluster = await start();
    const settings = await ask<{ name: string; setting: string }>(
      cluster.adminUrl,
      `SELECT name, setting FROM pg_settings WHERE name IN ('listen_addresses', 'unix_socket_directories', 'password_encryption')`,
    );
    expect(Object.fromEntries(settings.map(({ name, setting }) => [name, setting]))).toEqual({
      listen_addresses: '127.0.0.1',
      unix_socket_directories: '',
      password_encryption: 'scram-sha-256',
    });
    const rules = await ask<{ auth_method: string }>(
      cluster.adminUrl,
      'SELECT DISTINCT auth_method FROM pg_hba_file_rules',
    );
    expect(rules).toEqual([{ auth_method: 'scram-sha-256' }]);
    const withoutPassword = Object.assign(new URL(cluster.url), { password: 'guess' }).toString();
    await expect(ask(withoutPassword, 'SELECT 1')).rejects.toThrow(/password/);
    expect(statSync(path.join(folder, 'secrets.json')).mode & PERMISSIONS).toBe(0o600);
    expect(statSync(path.join(folder, 'pg')).mode & PERMISSIONS).toBe(0o700);
    cluster.stop();
    expect(existsSync(pidFile())).toBe(false);
  });

  it('gives the role of the app no more than its own database', async () => {
    const cluster = await start();
    const rows = await ask<{ rolsuper: boolean; rolcreaterole: boolean; rolcreatedb: boolean }>(
      cluster.url,
      'SELECT rolsuper, rolcreaterole, rolcreatedb FROM pg_roles WHERE rolname = current_user',
    );
    expect(rows).toEqual([{ rolsuper: false, rolcreaterole: false, rolcreatedb: false }]);
    cluster.stop();
  });

  it('keeps what was written over a stop and a start', async () => {
    const first = await start();
    await ask(first.ownerUrl, 'CREATE TABLE kept AS SELECT 42 AS answer');
    first.stop();
    const second = await start();
    expect(await ask(second.ownerUrl, 'SELECT answer FROM kept')).toEqual([{ answer: 42 }]);
    second.stop();
  });

  it('takes up a server that a killed run left behind', async () => {
    const first = await start();
    const again = await start();
    expect(again.url).toBe(first.url);
    again.stop();
    await expect(ask(again.url, 'SELECT 1')).rejects.toThrow();
  });

  it('is not stopped by a stale pid file, nor by one that names a stranger', async () => {
    const crashed = await start();
    spawnSync('kill', ['-9', readFileSync(pidFile(), 'utf8').split('\n')[0] ?? '']);
    const healed = await start();
    expect(await ask(healed.ownerUrl, 'SELECT answer FROM kept')).toEqual([{ answer: 42 }]);
    healed.stop();
    writeFileSync(pidFile(), `1\n${folder}/pg\n1\n${new URL(crashed.url).port}\n`);
    const again = await start();
    expect(await ask(again.url, 'SELECT 1 AS one')).toEqual([{ one: 1 }]);
    again.stop();
  });

  it('begins anew where the first start was killed half way', async () => {
    const half = mkdtempSync(path.join(tmpdir(), 'tempera-half-'));
    writeFileSync(path.join(half, 'secrets.json'), JSON.stringify({ adminPassword: 'a', password: 'b', ready: false }));
    const cluster = await startCluster({ folder: half, durable: false });
    expect(await ask(cluster.url, 'SELECT 1 AS one')).toEqual([{ one: 1 }]);
    removeCluster(half);
    expect(existsSync(path.join(half, 'pg'))).toBe(false);
    rmSync(half, { recursive: true });
  });

  it('never throws data away because its password file is gone', async () => {
    const secrets = path.join(folder, 'secrets.json');
    const kept = readFileSync(secrets);
    rmSync(secrets);
    await expect(start()).rejects.toThrow(/password file .* is gone/);
    writeFileSync(secrets, 'not json');
    await expect(start()).rejects.toThrow(/cannot be read/);
    writeFileSync(secrets, kept, { mode: 0o600 });
    const cluster = await start();
    expect(await ask(cluster.ownerUrl, 'SELECT answer FROM kept')).toEqual([{ answer: 42 }]);
    cluster.stop();
  });

  it('says in one sentence that a folder cannot be written', async () => {
    const nowhere = startCluster({ folder: '/proc/nowhere', durable: false });
    await expect(nowhere).rejects.toThrow(SetUpError);
    await expect(nowhere).rejects.toThrow(/cannot write to .*TEMPERA_DATA/);
  });
});

describe('a second run on the same data', () => {
  it('is refused while the first lives, and not because of a leftover note', () => {
    const place = mkdtempSync(path.join(tmpdir(), 'tempera-run-'));
    expect(() => refuseSecondRun(place)).not.toThrow();
    noteRun(place, 'http://localhost:1');
    expect(() => refuseSecondRun(place)).not.toThrow();
    // A process that is alive but none of ours: the number was given to somebody else since.
    writeFileSync(path.join(place, 'run.json'), JSON.stringify({ pid: 1, address: 'http://localhost:1' }));
    expect(() => refuseSecondRun(place)).not.toThrow();
    writeFileSync(path.join(place, 'run.json'), '{');
    expect(() => refuseSecondRun(place)).not.toThrow();
    forgetRun(place);
    expect(existsSync(path.join(place, 'run.json'))).toBe(false);
    rmSync(place, { recursive: true });
  });
});
