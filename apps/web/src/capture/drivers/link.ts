/** Why a device says nothing, for whoever stands before it. */
export type WhySilent =
  /** This browser has no way to such devices. */
  | 'browserCannot'
  /** The page came over plain HTTP from another machine. */
  | 'pageNotSecure'
  /** The browser forgot it at the last reload, and wants it found again by a tap. */
  | 'findAgain'
  /** It was there and is gone: it sleeps, is out of reach or unplugged. It is tried again by itself. */
  | 'gone'
  /** The port is open elsewhere, or may not be opened. */
  | 'portBusy'
  /** It is connected and sends nothing. */
  | 'noReadings'
  /** It sends, and nothing of it is a weight. */
  | 'notAWeight'
  /** Its numbers name no unit: somebody must say what they mean. */
  | 'whichUnit';

/** A weight as a driver hands it on: when it was taken, ms since the epoch, in grams; `stable` null: the scale does not say. */
export interface ScaleReading {
  atMs: number;
  g: number;
  stable: boolean | null;
}

/** What a driver tells of its device. */
export interface LinkEvents {
  onReading: (reading: ScaleReading) => void;
  /** Null: it is connected. */
  onSilent: (why: WhySilent | null) => void;
  /** A line as it came, for whoever finds out what it means. */
  onLine?: (line: string) => void;
}

/** An open way to a scale. */
export interface ScaleLink {
  /** Sets it to nought; null where the scale has no such order. */
  readonly tare: (() => Promise<void>) | null;
  close: () => Promise<void>;
}

const FIRST_TRY_MS = 1_000;
const LONGEST_TRY_MS = 15_000;

/**
 * Keeps trying to open something: at once, and after each loss again, ever less often.
 * @param open rejects where it is out of reach
 * @returns `lost` begins anew, `stop` ends it
 */
export function keepTrying(open: () => Promise<void>): { lost: () => void; stop: () => void } {
  let timer: ReturnType<typeof setTimeout> | null = null;
  let stopped = false;
  let waitMs = FIRST_TRY_MS;
  const attempt = (): void => {
    timer = null;
    open().then(
      () => {
        waitMs = FIRST_TRY_MS;
      },
      () => later(),
    );
  };
  const later = (): void => {
    if (stopped || timer !== null) return;
    timer = setTimeout(attempt, waitMs);
    waitMs = Math.min(2 * waitMs, LONGEST_TRY_MS);
  };
  attempt();
  return {
    lost: later,
    stop: () => {
      stopped = true;
      if (timer !== null) clearTimeout(timer);
    },
  };
}
