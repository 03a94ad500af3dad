import type { BridgeReading } from '@tempera/contract/readings';

/** A weight that is older than this helps nobody: it is dropped, not sent late. */
const PERISHES_MS = 3_000;
const EVERY_MS = 100;
const AGAIN_MS = 2_000;
const MOST_AT_ONCE = 200;
const HTTP_REFUSED = 400;
const HTTP_FAILED = 500;

/** What the bridge was refused for, in the server's own words. */
export class Refused extends Error {}

async function sentenceOf(answer: Response): Promise<string> {
  const told = (await answer.json().catch(() => ({}))) as { detail?: string };
  return told.detail ?? `The server answered ${answer.status}.`;
}

/** Enrols the bridge by a code from the team page. @returns its key @throws Refused */
export async function enrol(server: string, code: string): Promise<string> {
  const answer = await fetch(`${server}/api/device`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ code: code.replaceAll(/\s/g, '') }),
  });
  if (!answer.ok) throw new Refused(await sentenceOf(answer));
  const key = /tempera_device=([^;]+)/.exec(answer.headers.getSetCookie().join('\n'))?.[1];
  if (key === undefined) throw new Refused('The server gave no key.');
  return key;
}

/** Sends readings a few times a second. A server that is gone costs the readings of that while, and nothing else. */
export function poster(server: string, key: string, say: (line: string) => void) {
  let waiting: { reading: BridgeReading; sinceMs: number }[] = [];
  let timer: NodeJS.Timeout | null = null;
  let ended = false;
  let told: string | null = null;
  const tell = (line: string): void => {
    if (line !== told) say(line);
    told = line;
  };
  const send = async (): Promise<void> => {
    timer = null;
    const now = Date.now();
    const readings = waiting
      .filter(({ sinceMs }) => now - sinceMs < PERISHES_MS)
      .slice(-MOST_AT_ONCE)
      .map(({ reading }) => reading);
    waiting = [];
    if (readings.length === 0) return;
    let waitMs = EVERY_MS;
    try {
      const answer = await fetch(`${server}/api/readings`, {
        method: 'POST',
        headers: { 'content-type': 'application/json', cookie: `tempera_device=${key}` },
        body: JSON.stringify({ readings }),
      });
      if (answer.status >= HTTP_REFUSED) {
        waitMs = AGAIN_MS;
        tell(answer.status >= HTTP_FAILED ? 'The server is in trouble; trying again.' : await sentenceOf(answer));
      } else tell('The server hears it.');
    } catch {
      waitMs = AGAIN_MS;
      tell(`${server} is out of reach; trying again.`);
    }
    if (!ended) timer = setTimeout(() => void send(), waitMs);
  };
  return {
    take: (readings: readonly BridgeReading[]): void => {
      const sinceMs = Date.now();
      waiting.push(...readings.map((reading) => ({ reading, sinceMs })));
      timer ??= setTimeout(() => void send(), EVERY_MS);
    },
    end: (): void => {
      ended = true;
      if (timer) clearTimeout(timer);
    },
  };
}
