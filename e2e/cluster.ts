import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { z } from 'zod';
import { startCluster } from '../tools/setup/cluster.ts';

const addressSchema = z.object({ url: z.string(), ownerUrl: z.string(), adminUrl: z.string() });

/** Where a PostgreSQL is: for the server's role, for the role that owns its tables, and for the superuser. */
export type ClusterAddress = z.infer<typeof addressSchema>;

const KEY = 'TEMPERA_TEST_CLUSTER';

/** The PostgreSQL that the test run started; null outside of one. */
export function sharedCluster(): ClusterAddress | null {
  const told = process.env[KEY];
  return told === undefined ? null : addressSchema.parse(JSON.parse(told));
}

/** A PostgreSQL that nobody will miss. */
export async function throwAwayCluster(): Promise<ClusterAddress & { remove: () => void }> {
  const folder = mkdtempSync(path.join(tmpdir(), 'tempera-e2e-'));
  const cluster = await startCluster({ folder, durable: false });
  const remove = (): void => {
    cluster.stop();
    rmSync(folder, { recursive: true, force: true });
  };
  return { ...cluster, remove };
}

/** Starts one PostgreSQL for all workers of a test run. @returns what takes it down again */
export default async function setUp(): Promise<() => void> {
  const { remove, ...address } = await throwAwayCluster();
  process.env[KEY] = JSON.stringify(address);
  return remove;
}
