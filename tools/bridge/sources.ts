import { execFile } from 'node:child_process';
import { createReadStream } from 'node:fs';
import { connect } from 'node:net';
import { promisify } from 'node:util';
import type { Readable } from 'node:stream';

const USUAL_BAUD = 9_600;
/** A source that is gone is tried again after so long. */
const AGAIN_MS = 2_000;

/** Where a device is read: "serial:/dev/ttyUSB0@9600", "tcp:192.168.1.20:4001", "stdin". */
export interface Source {
  where: string;
  open(): Promise<Readable>;
}

const run = promisify(execFile);

/** @throws Error with a sentence, for an address of another form */
export function sourceOf(where: string): Source {
  const serial = /^serial:([^@]+)(?:@(\d+))?$/.exec(where);
  if (serial) {
    const [path = '', baud = String(USUAL_BAUD)] = serial.slice(1);
    return {
      where,
      open: async () => {
        // Raw bytes, as they come: no echo, no line editing, and the modem's lines left alone.
        await run('stty', ['-F', path, baud, 'raw', '-echo', 'clocal']);
        return createReadStream(path);
      },
    };
  }
  const tcp = /^tcp:(.+):(\d+)$/.exec(where);
  if (tcp) {
    const [host = '', port = ''] = tcp.slice(1);
    return {
      where,
      open: () =>
        new Promise((resolve, reject) => {
          const socket = connect(Number(port), host);
          socket.once('connect', () => resolve(socket));
          socket.once('error', reject);
        }),
    };
  }
  if (where === 'stdin') return { where, open: () => Promise.resolve(process.stdin) };
  throw new Error(`"${where}" is no address: write serial:/dev/ttyUSB0@9600, tcp:host:port or stdin.`);
}

/**
 * Reads a source for as long as it goes on, and again when it comes back.
 * @param listen gives what takes the text of one opening: half a line that a cut left behind is no part of the next one
 * @param say tells whoever watches the bridge
 * @returns ends it
 */
export function readOn(source: Source, listen: () => (piece: string) => void, say: (line: string) => void): () => void {
  let ended = false;
  let stream: Readable | null = null;
  let timer: NodeJS.Timeout | null = null;
  let told: string | null = null;
  const tell = (line: string): void => {
    if (line !== told) say(line);
    told = line;
  };
  const again = (why: string): void => {
    stream = null;
    if (ended) return;
    tell(`${source.where}: ${why}; trying again`);
    timer = setTimeout(() => void begin(), AGAIN_MS);
  };
  const begin = async (): Promise<void> => {
    let opened: Readable;
    try {
      opened = await source.open();
    } catch (error) {
      again(error instanceof Error ? error.message.trim() : 'cannot be opened');
      return;
    }
    if (ended) {
      opened.destroy();
      return;
    }
    stream = opened;
    tell(`${source.where}: open`);
    let over = false;
    const lose = (why: string): void => {
      if (over) return;
      over = true;
      again(why);
    };
    opened.setEncoding('utf8');
    opened.on('data', listen());
    opened.on('error', () => lose('lost'));
    opened.on('close', () => lose('closed'));
    opened.on('end', () => lose('ended'));
  };
  void begin();
  return () => {
    ended = true;
    if (timer) clearTimeout(timer);
    stream?.destroy();
  };
}
