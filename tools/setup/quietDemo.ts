import type { Config } from '../../apps/server/src/kernel/config.ts';

/** The demo café as tests and benches serve it: on loopback, silent, without limits on requests. */
export function quietDemo(change: Pick<Config, 'databaseUrl'> & Partial<Config>): Config {
  return {
    ownerUrl: null,
    publicUrl: null,
    host: '127.0.0.1',
    port: 0,
    logLevel: 'silent',
    demo: 'opening',
    speed: 1,
    seed: 1,
    setUpCode: 'garden gate',
    behindTls: false,
    tls: null,
    requestsPerMinute: 1_000_000,
    webRoot: null,
    ...change,
  };
}
