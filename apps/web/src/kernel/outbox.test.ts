import type { NewEntry, RecordedEntry } from '@tempera/contract/journal';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import { ApiProblem, Unreachable } from './api.ts';
import { Outbox, type OutboxStorage } from './outbox.ts';
import { memoryStorage } from './testOutbox.ts';

const fact = (id: string, personId = 'ines'): NewEntry =>
  ({ id, personId, kind: 'purge', body: { purgeG: 12 } }) as NewEntry;
const kept = (of: NewEntry): RecordedEntry => of as RecordedEntry;
const refusal = (
  code: 'invalid' | 'notReady' | 'signInFirst' | 'notYours' | 'internal' | 'needsRole' | 'deviceUnknown',
) =>
  new ApiProblem({
    type: '',
    title: '',
    status: 422,
    code,
    detail: 'No.',
    ...(code === 'invalid' ? { fields: [{ path: 'x', message: 'Check the number.' }] } : {}),
  });

describe('the outbox', () => {
  let storage: OutboxStorage;
  beforeEach(() => {
    storage = memoryStorage();
    vi.useFakeTimers();
  });

  it('sends in order, one at a time, and tells of each that the server has', async () => {
    const sent: string[] = [];
    let running = 0;
    const outbox = new Outbox(storage, async (one) => {
      running += 1;
      expect(running).toBe(1);
      await Promise.resolve();
      running -= 1;
      sent.push(one.id);
      return kept(one);
    });
    const arrived: string[] = [];
    outbox.onKept = (facts) => arrived.push(...facts.map(({ id }) => id));
    outbox.signedIn('ines');
    await outbox.add([fact('a'), fact('b')]);
    await outbox.add([fact('c')]);
    await vi.runAllTimersAsync();
    expect(sent).toEqual(['a', 'b', 'c']);
    expect(arrived).toEqual(['a', 'b', 'c']);
    expect(outbox.entries()).toEqual([]);
    expect(await storage.read()).toEqual([]);
  });

  it('tells of a shift that goes at once in a few goes, and sends again what it had not told of when the page closed', async () => {
    const TOOK_MS = 100;
    const send = async (one: NewEntry): Promise<RecordedEntry> => {
      await new Promise((resolve) => setTimeout(resolve, TOOK_MS));
      return kept(one);
    };
    const remove = vi.spyOn(storage, 'remove');
    const outbox = new Outbox(storage, send);
    const goes: string[][] = [];
    outbox.onKept = (facts) => goes.push(facts.map(({ id }) => id));
    const ids = Array.from({ length: 100 }, (_, i) => `fact ${i}`);
    await outbox.add(ids.map((id) => fact(id)));
    outbox.signedIn('ines');
    // Ten seconds of sending: told of and written down every two.
    await vi.advanceTimersByTimeAsync(50 * TOOK_MS + TOOK_MS / 2);
    expect(outbox.isSending('fact 50')).toBe(true);
    expect(outbox.isSending('fact 99')).toBe(false);
    const left = await storage.read();
    expect(left.length).toBeGreaterThan(50);
    expect(left.length).toBeLessThan(75);
    await vi.runAllTimersAsync();
    expect(goes.flat()).toEqual(ids);
    expect(goes.length).toBeLessThan(8);
    expect(remove.mock.calls.length).toBeLessThan(10);
    expect(outbox.entries()).toEqual([]);

    // Another page finds what was not told of, and the server is asked again: it knows them.
    await storage.add(left);
    const sentAgain: string[] = [];
    const another = new Outbox(storage, (one) => {
      sentAgain.push(one.id);
      return Promise.resolve(kept(one));
    });
    await another.load();
    another.signedIn('ines');
    await vi.runAllTimersAsync();
    expect(sentAgain).toEqual(left.map((entry) => entry.fact.id));
  });

  it('keeps what it cannot send, over a reload, and sends it later in the same order', async () => {
    const away = new Outbox(storage, () => Promise.reject(new Unreachable()));
    away.signedIn('ines');
    await away.add([fact('a')]);
    await away.add([fact('b')]);
    await vi.advanceTimersByTimeAsync(500);
    expect(away.entries()).toHaveLength(2);

    const sent: string[] = [];
    const reloaded = new Outbox(storage, (one) => {
      sent.push(one.id);
      return Promise.resolve(kept(one));
    });
    await reloaded.load();
    expect(reloaded.entries().map((entry) => entry.fact.id)).toEqual(['a', 'b']);
    reloaded.signedIn('ines');
    await vi.runAllTimersAsync();
    expect(sent).toEqual(['a', 'b']);
  });

  it('tries again by itself, with growing pauses, and never overtakes', async () => {
    const tries: string[] = [];
    const outbox = new Outbox(storage, (one) => {
      tries.push(one.id);
      return tries.length < 4 ? Promise.reject(refusal('notReady')) : Promise.resolve(kept(one));
    });
    outbox.signedIn('ines');
    await outbox.add([fact('a'), fact('b')]);
    await vi.advanceTimersByTimeAsync(999);
    expect(tries).toEqual(['a']);
    await vi.runAllTimersAsync();
    expect(tries).toEqual(['a', 'a', 'a', 'a', 'b']);
    expect(outbox.entries()).toEqual([]);
  });

  it('sets a refused fact aside with its sentence, goes on, and lets it go when told', async () => {
    const outbox = new Outbox(storage, (one) =>
      one.id === 'bad' ? Promise.reject(refusal('invalid')) : Promise.resolve(kept(one)),
    );
    outbox.signedIn('ines');
    await outbox.add([fact('bad'), fact('good')]);
    await vi.runAllTimersAsync();
    expect(outbox.entries()).toEqual([expect.objectContaining({ refusal: 'Check the number.' })]);
    await outbox.discard('bad');
    expect(outbox.entries()).toEqual([]);
    expect(await storage.read()).toEqual([]);
  });

  it('lets the rest go on when the server stumbles over one again and again', async () => {
    const sent: string[] = [];
    const outbox = new Outbox(storage, (one) => {
      if (one.id === 'bad') return Promise.reject(refusal('internal'));
      sent.push(one.id);
      return Promise.resolve(kept(one));
    });
    outbox.signedIn('ines');
    await outbox.add([fact('bad'), fact('good')]);
    await vi.advanceTimersByTimeAsync(60_000);
    expect(sent).toEqual(['good']);
    expect(outbox.entries()).toMatchObject([{ fact: { id: 'bad' }, refusal: 'No.', code: 'internal' }]);
  });

  it('sends a refused entry again, with the yes that it wanted', async () => {
    const sent: (string | undefined)[] = [];
    const outbox = new Outbox(storage, (one) => {
      sent.push(one.yesId);
      return one.yesId === undefined ? Promise.reject(refusal('needsRole')) : Promise.resolve(kept(one));
    });
    outbox.signedIn('ines');
    await outbox.add([fact('lock')]);
    await vi.runAllTimersAsync();
    expect(outbox.entries()).toMatchObject([{ code: 'needsRole' }]);
    await outbox.sendAgain('lock', 'a yes');
    await vi.runAllTimersAsync();
    expect(sent).toEqual([undefined, 'a yes']);
    expect(outbox.entries()).toEqual([]);
  });

  it('keeps and sends a fact once that is written twice under one id', async () => {
    const sent: string[] = [];
    const outbox = new Outbox(storage, (one) => {
      sent.push(one.id);
      return Promise.resolve(kept(one));
    });
    await outbox.add([fact('a')]);
    await outbox.add([fact('a'), fact('b')]);
    expect(outbox.entries().map((entry) => entry.fact.id)).toEqual(['a', 'b']);
    expect(await storage.read()).toHaveLength(2);
    outbox.signedIn('ines');
    await vi.runAllTimersAsync();
    expect(sent).toEqual(['a', 'b']);
  });

  it('sends only what the signed-in person wrote', async () => {
    const sent: string[] = [];
    const outbox = new Outbox(storage, (one) => {
      sent.push(one.id);
      return Promise.resolve(kept(one));
    });
    await outbox.add([fact('of ines')]);
    outbox.signedIn('noor');
    await outbox.add([fact('of noor', 'noor')]);
    await vi.runAllTimersAsync();
    expect(sent).toEqual(['of noor']);
    outbox.signedIn('ines');
    await vi.runAllTimersAsync();
    expect(sent).toEqual(['of noor', 'of ines']);
  });

  it('waits for its author when another tab has signed somebody else in', async () => {
    let signedIn = 'noor';
    const sent: string[] = [];
    const outbox = new Outbox(storage, (one) => {
      if (one.personId !== signedIn) return Promise.reject(refusal('notYours'));
      sent.push(one.id);
      return Promise.resolve(kept(one));
    });
    outbox.signedIn('ines');
    await outbox.add([fact('a')]);
    await vi.advanceTimersByTimeAsync(5_000);
    expect(sent).toEqual([]);
    expect(outbox.entries()).toEqual([expect.objectContaining({ refusal: null })]);
    signedIn = 'ines';
    await vi.runAllTimersAsync();
    expect(sent).toEqual(['a']);
  });

  it('reads what an earlier version of the page left, with its author beside it', async () => {
    await storage.add([{ fact: { id: 'old' } as NewEntry, personId: 'ines', refusal: null } as never]);
    const outbox = new Outbox(storage, (one) => Promise.resolve(kept(one)));
    await outbox.load();
    expect(outbox.entries()).toEqual([{ fact: { id: 'old', personId: 'ines', skewMs: null }, refusal: null }]);
  });

  it('keeps everything when the session has run out', async () => {
    const outbox = new Outbox(storage, () => Promise.reject(refusal('signInFirst')));
    outbox.signedIn('ines');
    await outbox.add([fact('a')]);
    await vi.advanceTimersByTimeAsync(100);
    expect(outbox.entries()).toEqual([expect.objectContaining({ refusal: null })]);
  });

  describe('while its author stands here by name alone', () => {
    const lock = { ...fact('lock', 'noor'), kind: 'lock', body: {}, grinderId: 'house' } as unknown as NewEntry;
    const told: string[] = [];
    const sent: string[] = [];
    const byName = (tell = (one: NewEntry) => Promise.resolve((told.push(one.id), kept(one)))): Outbox =>
      new Outbox(storage, (one) => Promise.resolve((sent.push(one.id), kept(one))), tell);
    beforeEach(() => {
      told.length = 0;
      sent.length = 0;
    });

    it('tells plain work once, keeps it for the PIN, and sends all of it under their session', async () => {
      const outbox = byName();
      outbox.named('noor');
      await outbox.add([fact('a', 'noor'), lock, fact('b', 'noor'), fact('c', 'ines')]);
      await vi.runAllTimersAsync();
      expect(told).toEqual(['a', 'b']);
      expect(outbox.entries().map((entry) => [entry.fact.id, entry.told ?? false])).toEqual([
        ['a', true],
        ['lock', false],
        ['b', true],
        ['c', false],
      ]);
      // A reload tells nothing again.
      const reloaded = byName();
      await reloaded.load();
      reloaded.named('noor');
      await vi.runAllTimersAsync();
      expect([told, sent]).toEqual([['a', 'b'], []]);
      reloaded.named(null);
      reloaded.signedIn('noor');
      await vi.runAllTimersAsync();
      expect(sent).toEqual(['a', 'lock', 'b']);
      expect(reloaded.entries().map(({ fact: { id } }) => id)).toEqual(['c']);
    });

    it('waits where the house knows no tablets, and asks again while the network is gone', async () => {
      const asked = vi.fn();
      const unknown = byName((one) => {
        asked(one.id);
        return Promise.reject(refusal('deviceUnknown'));
      });
      unknown.named('noor');
      await unknown.add([fact('a', 'noor'), fact('b', 'noor')]);
      await vi.runAllTimersAsync();
      expect(asked.mock.calls).toEqual([['a']]);
      expect(unknown.entries().map(({ refusal: said }) => said)).toEqual([null, null]);

      storage = memoryStorage();
      let gone = true;
      const away = byName((one) => {
        if (gone) return Promise.reject(new Unreachable());
        told.push(one.id);
        return Promise.resolve(kept(one));
      });
      away.named('noor');
      await away.add([fact('d', 'noor')]);
      await vi.advanceTimersByTimeAsync(10);
      expect(told).toEqual([]);
      gone = false;
      await vi.runAllTimersAsync();
      expect(told).toEqual(['d']);
    });
  });
});
