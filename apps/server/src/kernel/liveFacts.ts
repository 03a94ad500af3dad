import { liveEvents } from '@tempera/contract/live';
import type { Response } from 'express';
import { z } from 'zod';
import { Batches } from './batches.ts';
import { eventText, type LiveStreams } from './liveStreams.ts';
import { ToldFacts, type FactPlace, type Stand } from './toldFacts.ts';

/** Facts that were written closer together than this go into one notice: each takes a lock that all writers share. */
const ANNOUNCED_EVERY_MS = 25;
/** What is told closer together than this is read and told together. */
const TOLD_EVERY_MS = 100;
/** PostgreSQL carries no more than 8,000 bytes a notice. */
const MOST_IDS = 150;
/** Who missed more than so many reads everything again. */
const MOST_MISSED = 500;
/** More than a café writes while its facts settle. */
const MOST_PLACES = 10_000;
/** So many places back, of all cafés together, and so long a time, a lower place may have come after a higher one. */
const PLACES_BACK = 200;
const TIME_BACK_MS = 10_000;

const noticeSchema = z.object({ siteId: z.string(), ids: z.array(z.string()) });

/** A fact as the wire has it, as far as it matters to its way there. */
interface Sendable {
  id: string;
  seq: number;
  siteId: string;
}

export interface FactReads {
  /** Facts as the wire has them, by their ids, in the order of their arrival. */
  readFacts: (ids: string[]) => Promise<Sendable[]>;
  /** Where cafés stand. */
  standsOf: (siteIds: readonly string[]) => Promise<Stand[]>;
  /** Facts after a place of each café, in their order, so many of each at the most. */
  placesAfter: (asked: readonly { siteId: string; afterSeq: number }[], most: number) => Promise<FactPlace[]>;
}

interface Parts extends FactReads {
  streams: LiveStreams;
  /** Sends a notice about facts to every process. */
  notify: (payload: string) => Promise<unknown>;
  /** Told why facts could not be announced: whoever listens finds them at the next catching up. */
  notAnnounced: (error: unknown) => void;
  /** Told why streams could not be told. */
  notTold: (error: unknown) => void;
}

/** The way of facts from whoever wrote them to the browsers of their café, over any number of server processes. */
export class LiveFacts {
  private readonly parts: Parts;
  private readonly told = new ToldFacts();
  private readonly written: Batches<Pick<Sendable, 'id' | 'siteId'>>;
  private readonly heard: Batches<string>;

  constructor(parts: Parts) {
    this.parts = parts;
    this.written = new Batches(ANNOUNCED_EVERY_MS, (facts) => this.announce(facts), parts.notAnnounced);
    this.heard = new Batches(TOLD_EVERY_MS, (ids) => this.tell(ids), parts.notTold);
  }

  /** This process has written a fact, and it is committed. */
  wrote(fact: Pick<Sendable, 'id' | 'siteId'>): void {
    this.written.add(fact);
  }

  /** A notice about facts has come. @throws where it is none */
  hear(payload: string): void {
    const { siteId, ids } = noticeSchema.parse(JSON.parse(payload));
    // Of cafés that nobody here listens to nothing is read.
    if (!this.parts.streams.hasSite(siteId)) return;
    for (const id of ids) {
      this.told.tell(siteId, id);
      this.heard.add(id);
    }
  }

  /** Somebody listens from now on. @returns where their café stands */
  async begin(siteId: string): Promise<Stand> {
    const [stand] = await this.parts.standsOf([siteId]);
    if (!stand) throw new Error('live: a stream of a café that is none');
    this.told.begin(stand);
    return stand;
  }

  /**
   * Sends a browser that comes back what it missed.
   * @param afterSeq the place of the last that it was told of
   * @returns whether it has all now; not where that is too much
   */
  async tellGap(res: Response, siteId: string, afterSeq: number): Promise<boolean> {
    const { placesAfter, readFacts, streams } = this.parts;
    const asked = [{ siteId, afterSeq: Math.max(0, afterSeq - PLACES_BACK) }];
    const places = await placesAfter(asked, MOST_MISSED + PLACES_BACK);
    const last = places.findLast(({ seq }) => seq <= afterSeq);
    const fromMs = (last?.receivedAt.getTime() ?? 0) - TIME_BACK_MS;
    const missed = places.filter(({ seq, receivedAt }) => seq > afterSeq || receivedAt.getTime() >= fromMs);
    if (missed.filter(({ seq }) => seq > afterSeq).length >= MOST_MISSED) return false;
    if (missed.length === 0) return true;
    for (const fact of await readFacts(missed.map(({ id }) => id))) streams.send(res, liveEvents.fact, fact, fact.seq);
    return true;
  }

  /**
   * Tells of facts whose notices were lost, found by their places.
   * @param wasDeaf whether no notice came for a while
   * @returns cafés that must read everything again: too much was missed, or their house was changed meanwhile
   */
  async catchUp(wasDeaf: boolean): Promise<string[]> {
    const { streams, standsOf, placesAfter } = this.parts;
    const siteIds = streams.siteIds();
    this.told.keepOnly(siteIds);
    if (siteIds.length === 0) return [];
    const stands = await standsOf(siteIds);
    const behind = this.told.behind(stands);
    const places = behind.length > 0 ? await placesAfter(behind, MOST_PLACES) : [];
    const missed = this.told.missedAmong(places, Date.now());
    const changed = this.told.changed(stands);
    const readAgain = siteIds.filter(
      (siteId) =>
        (wasDeaf && changed.includes(siteId)) || missed.filter((place) => place.siteId === siteId).length > MOST_MISSED,
    );
    for (const { id, siteId } of missed) if (!readAgain.includes(siteId)) this.heard.add(id);
    return readAgain;
  }

  /** Announces what is written and was not announced yet; tells nothing more. */
  async close(): Promise<void> {
    await this.written.finish();
  }

  private async announce(facts: Pick<Sendable, 'id' | 'siteId'>[]): Promise<void> {
    for (const siteId of new Set(facts.map((fact) => fact.siteId))) {
      const ids = facts.filter((fact) => fact.siteId === siteId).map(({ id }) => id);
      for (let i = 0; i < ids.length; i += MOST_IDS)
        await this.parts.notify(JSON.stringify({ siteId, ids: ids.slice(i, i + MOST_IDS) }));
    }
  }

  private async tell(ids: string[]): Promise<void> {
    const textBySite = new Map<string, string>();
    for (const fact of await this.parts.readFacts(ids)) {
      const before = textBySite.get(fact.siteId) ?? '';
      textBySite.set(fact.siteId, before + eventText(liveEvents.fact, fact, fact.seq));
    }
    for (const [siteId, text] of textBySite) this.parts.streams.toSite(siteId, text);
  }
}
