/**
 * Hands things on at once in a quiet minute; where they come one upon the other they are handed on together, in the order
 * of their coming.
 */
export class Batches<T> {
  private waiting: T[] = [];
  private timer: NodeJS.Timeout | null = null;
  private handing: Promise<void> | null = null;
  private handedAtMs = 0;
  private readonly everyMs: number;
  private readonly hand: (batch: T[]) => Promise<void>;
  private readonly failed: (error: unknown) => void;

  /** @param everyMs between two batches, at least @param failed is told why one could not be handed on */
  constructor(everyMs: number, hand: (batch: T[]) => Promise<void>, failed: (error: unknown) => void) {
    this.everyMs = everyMs;
    this.hand = hand;
    this.failed = failed;
  }

  add(one: T): void {
    this.waiting.push(one);
    this.handSoon();
  }

  /** Hands on what still waits, without waiting for its time. */
  async finish(): Promise<void> {
    await this.handing;
    if (this.timer) clearTimeout(this.timer);
    this.timer = null;
    if (this.waiting.length > 0) await this.handNow();
  }

  private handSoon(): void {
    if (this.handing || this.timer || this.waiting.length === 0) return;
    this.timer = setTimeout(() => void this.handNow(), Math.max(0, this.handedAtMs + this.everyMs - Date.now()));
  }

  private async handNow(): Promise<void> {
    const batch = this.waiting;
    this.waiting = [];
    this.timer = null;
    this.handedAtMs = Date.now();
    this.handing = this.hand(batch).catch(this.failed);
    await this.handing;
    this.handing = null;
    // What came meanwhile is handed on after it, never before.
    this.handSoon();
  }
}
