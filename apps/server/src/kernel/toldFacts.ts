import { MS_PER_MINUTE } from '@tempera/core/numbers';

/** Where a café stands: its last fact, and when it came in or the house was last changed, ms since the epoch; null: never. */
export interface Stand {
  siteId: string;
  /** The place of its last fact; 0: it has none. */
  seq: number;
  newsMs: number | null;
  houseMs: number | null;
}

/** A fact by its place alone. */
export interface FactPlace {
  siteId: string;
  id: string;
  seq: number;
  receivedAt: Date;
}

/** Facts have their place before they are committed: within this time a lower one may still appear after a higher one. */
const SETTLES_MS = MS_PER_MINUTE;

interface Told {
  /** Of every fact up to here the streams were told, or their browsers read it themselves. */
  upToSeq: number;
  /** Of these beyond it, too. */
  ids: Set<string>;
  houseMs: number | null;
}

/**
 * Up to where the streams of this process were told of each café's facts. A notice may be lost with a connection, or with the
 * process that wrote: what it was about is found by its place.
 */
export class ToldFacts {
  private readonly bySite = new Map<string, Told>();

  /** Somebody here listens to a café: what is there now they read themselves. */
  begin({ siteId, seq, houseMs }: Stand): void {
    if (!this.bySite.has(siteId)) this.bySite.set(siteId, { upToSeq: seq, ids: new Set(), houseMs });
  }

  /** Forgets cafés that nobody listens to any more. */
  keepOnly(siteIds: readonly string[]): void {
    for (const siteId of this.bySite.keys()) if (!siteIds.includes(siteId)) this.bySite.delete(siteId);
  }

  tell(siteId: string, id: string): void {
    this.bySite.get(siteId)?.ids.add(id);
  }

  /** After which places there may be facts that were not told. */
  behind(stands: readonly Stand[]): { siteId: string; afterSeq: number }[] {
    return stands.flatMap(({ siteId, seq }) => {
      const told = this.bySite.get(siteId);
      return told && seq > told.upToSeq ? [{ siteId, afterSeq: told.upToSeq }] : [];
    });
  }

  /** Takes note of all facts after the places asked for. @returns those that were not told, in their order */
  missedAmong(places: readonly FactPlace[], nowMs: number): FactPlace[] {
    const missed = places.filter(({ siteId, id }) => !(this.bySite.get(siteId)?.ids.has(id) ?? true));
    for (const { siteId, id, seq, receivedAt } of places) {
      const told = this.bySite.get(siteId);
      if (!told) continue;
      const isSettled = receivedAt.getTime() < nowMs - SETTLES_MS;
      if (!isSettled) told.ids.add(id);
      else if (seq > told.upToSeq) {
        told.upToSeq = seq;
        told.ids.delete(id);
      }
    }
    return missed;
  }

  /** Cafés whose house was changed since this was last asked or somebody began to listen, or whose facts a restored backup lacks. */
  changed(stands: readonly Stand[]): string[] {
    return stands.flatMap(({ siteId, seq, houseMs }) => {
      const told = this.bySite.get(siteId);
      if (!told || (told.houseMs === houseMs && seq >= told.upToSeq)) return [];
      told.houseMs = houseMs;
      told.upToSeq = Math.min(told.upToSeq, seq);
      return [siteId];
    });
  }
}
