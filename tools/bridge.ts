import { existsSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import { homedir } from 'node:os';
import path from 'node:path';
import { parseArgs } from 'node:util';
import { massUnits } from '@tempera/core/capture';
import { enrol, poster, Refused } from './bridge/post.ts';
import { readingsFrom, type Device } from './bridge/readings.ts';
import { readOn, sourceOf, type Source } from './bridge/sources.ts';

const usage = `Hands on what devices tell that a browser cannot reach (docs/devices.md).

  npm run bridge -- --server http://localhost:4400 --code "1234 5678" "counter scale=serial:/dev/ttyUSB0@9600"
  npm run bridge -- --server http://localhost:4400 "tub scale=tcp:192.168.1.20:4001,kg" "window=stdin"

  --server   where Tempera runs
  --code     from "A code for it" on the team page: needed once
  --key-file where the bridge keeps its key; in your home folder unless you say otherwise
`;

/** "counter scale=serial:/dev/ttyUSB0@9600,oz" @throws Error with a sentence */
export function deviceOf(text: string): { device: Device; source: Source } {
  const [, name, where, unit = 'g'] = /^([^=]+)=(.+?)(?:,(g|kg|oz|lb))?$/.exec(text) ?? [];
  const found = massUnits.find((one) => one === unit);
  if (name === undefined || where === undefined || !found)
    throw new Error(
      `"${text}" is no device: write name=serial:/dev/ttyUSB0@9600, and ,oz after it where it weighs so.`,
    );
  return { device: { name: name.trim(), unit: found }, source: sourceOf(where) };
}

/** Runs until it is interrupted. @returns an exit code where it could not begin */
export async function main(args: string[]): Promise<number | undefined> {
  const say = (line: string): void => void process.stderr.write(`${line}\n`);
  const { values, positionals } = parseArgs({
    args,
    allowPositionals: true,
    options: { server: { type: 'string' }, code: { type: 'string' }, 'key-file': { type: 'string' } },
  });
  const server = values.server?.replace(/\/$/, '');
  if (server === undefined || positionals.length === 0) {
    say(usage);
    return 2;
  }
  const keyFile = values['key-file'] ?? path.join(homedir(), '.tempera-bridge');
  let key: string;
  let devices: ReturnType<typeof deviceOf>[];
  try {
    devices = positionals.map(deviceOf);
    if (values.code !== undefined) {
      key = await enrol(server, values.code);
      mkdirSync(path.dirname(keyFile), { recursive: true });
      // Whoever has the key speaks for the bridge.
      writeFileSync(keyFile, key, { mode: 0o600 });
    } else if (existsSync(keyFile)) key = readFileSync(keyFile, 'utf8').trim();
    else throw new Refused('This bridge has no key yet: get a code on the team page, and give it with --code.');
  } catch (error) {
    say(error instanceof Error ? error.message : String(error));
    return 1;
  }
  const post = poster(server, key, say);
  const ends = devices.map(({ device, source }) => {
    const listen = () => {
      const take = readingsFrom(device, Date.now);
      return (piece: string): void => post.take(take(piece));
    };
    return readOn(source, listen, say);
  });
  await new Promise<void>((resolve) => {
    for (const signal of ['SIGINT', 'SIGTERM'] as const) process.once(signal, resolve);
  });
  for (const end of ends) end();
  post.end();
  return undefined;
}
