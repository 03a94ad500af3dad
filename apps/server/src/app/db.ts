import 'reflect-metadata';
import { DataSource } from 'typeorm';
import { FirstTables1795000000000 } from './migrations/1795000000000-first-tables.ts';
import { HouseBook1796200000000 } from './migrations/1796200000000-house-book.ts';
import { HousePolicy1795600000000 } from './migrations/1795600000000-house-policy.ts';
import { OneMemory1797100000000 } from './migrations/1797100000000-one-memory.ts';
import { SheetVersionEntity } from '../kernel/entities.ts';
import { rooms } from './rooms.ts';

/** From before rooms announced their own: they go across rooms. */
const firstMigrations = [
  FirstTables1795000000000,
  HousePolicy1795600000000,
  HouseBook1796200000000,
  OneMemory1797100000000,
];

const POOL_SIZE = 10;
const CONNECT_TIMEOUT_MS = 5_000;

/** The one database connection pool of a server process. Not connected until `initialize()`. */
export function createDataSource(url: string): DataSource {
  return new DataSource({
    type: 'postgres',
    url,
    entities: [SheetVersionEntity, ...rooms.flatMap(({ tables }) => tables)],
    migrations: [...firstMigrations, ...rooms.flatMap(({ migrations = [] }) => migrations)],
    migrationsTableName: 'migration',
    uuidExtension: 'pgcrypto',
    installExtensions: false,
    connectTimeoutMS: CONNECT_TIMEOUT_MS,
    poolSize: POOL_SIZE,
    logging: false,
  });
}
