import { spawn, type ChildProcess } from 'node:child_process';
import path from 'node:path';
import { serverDist } from './paths.ts';

/** A server process of the demo café as a service manager starts it, on a free port. */
export function startProcess(databaseUrl: string, env: NodeJS.ProcessEnv = {}): ChildProcess {
  return spawn(process.execPath, [path.join(serverDist, 'main.js')], {
    env: { ...process.env, DATABASE_URL: databaseUrl, PORT: '0', TEMPERA_DEMO: '1', ...env },
    stdio: ['ignore', 'pipe', 'pipe'],
  });
}

/** Resolves with the port once the process serves. @throws Error with what it said when it ended instead */
export function served(child: ChildProcess): Promise<number> {
  return new Promise((resolve, reject) => {
    let said = '';
    const hear = (part: Buffer): void => {
      said += part.toString();
      const port = /listens on http:\/\/[^:]+:(\d+)/.exec(said)?.[1];
      if (port) resolve(Number(port));
    };
    child.stdout?.on('data', hear);
    child.stderr?.on('data', hear);
    child.once('exit', (code) => reject(new Error(`ended with ${String(code)}: ${said}`)));
  });
}
