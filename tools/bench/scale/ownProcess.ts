import { fork } from 'node:child_process';
import { fileURLToPath } from 'node:url';
import type { z } from 'zod';

/**
 * Lets a file do its work in a process of its own, so that it costs the server that is measured no more than a
 * tablet would.
 * @returns what it tells when it is done @throws Error where it ends without a word
 */
export async function inOwnProcess<T>(file: URL, asked: object, told: z.ZodType<T>): Promise<T> {
  const child = fork(fileURLToPath(file), { execArgv: ['--import', 'tsx'] });
  child.send(asked);
  return new Promise<T>((resolve, reject) => {
    child.once('message', (message) => resolve(told.parse(message)));
    child.once('exit', () => reject(new Error(`${file.pathname} ended without a figure`)));
  });
}
