/** Facts that come closer together than this are told together. */
const GATHERED_MS = 100;

/** Tells of facts at once in a quiet minute; where they come one upon the other they are told together. */
export class FactTeller {
  private untold: string[] = [];
  private waits: NodeJS.Timeout | null = null;
  private isTelling = false;
  private toldAtMs = 0;
  private readonly tell: (ids: string[]) => Promise<void>;
  private readonly failed: (error: unknown) => void;

  /** @param tell tells of facts by their ids, in the order of their arrival @param failed is told why it could not */
  constructor(tell: (ids: string[]) => Promise<void>, failed: (error: unknown) => void) {
    this.tell = tell;
    this.failed = failed;
  }

  add(id: string): void {
    this.untold.push(id);
    this.tellSoon();
  }

  stop(): void {
    if (this.waits) clearTimeout(this.waits);
  }

  private tellSoon(): void {
    if (this.isTelling || this.untold.length === 0) return;
    this.isTelling = true;
    this.waits = setTimeout(() => void this.tellNow(), Math.max(0, this.toldAtMs + GATHERED_MS - Date.now()));
  }

  private async tellNow(): Promise<void> {
    const ids = this.untold;
    this.untold = [];
    this.toldAtMs = Date.now();
    await this.tell(ids).catch(this.failed);
    this.isTelling = false;
    // What came meanwhile is told after it, never before.
    this.tellSoon();
  }
}
