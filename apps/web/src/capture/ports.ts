import type { MassTrace } from '@tempera/core/capture';
import type { DoseWay } from '@tempera/core/facts';
import type { ServicePolicy } from '@tempera/core/house';
import type { ScaleReading } from './drivers/link.ts';

/**
 * What a bench may be connected to. Every device is a help, never a must: where one is missing the same numbers are
 * entered by hand.
 */
export interface BenchDevices {
  /** In words for the person at the bar, e.g. "Simulated scale". */
  readonly name: string;
  /** Grinds at a word; null: a hand does, and what it ground is read off the scale. */
  readonly grinder: GrinderPort | null;
  /** What stands on the scale, as it changes; null: it is told by the grinder, or typed. */
  readonly scale: { listen: (onReading: (reading: ScaleReading) => void) => () => void } | null;
  /** What may be made to happen to the scale, for trying; none on a real one. */
  readonly mishaps: readonly ScaleMishap[];
  /** What the next pull draws from, where chance hangs on a seed; undefined: on the pull itself. @param done shots through this group so far */
  drawFor(done: number): string | undefined;
  /** Starts the pump with a cup on the tared scale; also takes up a pull that a reload interrupted. */
  pull(start: PullStart): PullPort;
}

/** What may happen to a simulated scale: nobody tared the cup, it wanders, somebody knocks it, it goes silent in mid-shot. */
export const scaleMishaps = ['untared', 'drift', 'knock', 'lost'] as const;
export type ScaleMishap = (typeof scaleMishaps)[number];

/** A machine that tells of the shots of one group; whoever begins to listen is told at once whether one runs. */
export interface MachinePort {
  listen(onNews: (news: MachineNews) => void): () => void;
}

/** What it told: whether a shot runs, or what its volume counter shows. */
export interface MachineNews {
  atMs: number;
  runs?: boolean;
  count?: number;
}

/** A grinder that takes orders. */
export interface GrinderPort {
  /** Grinds for a set time into the portafilter on the scale; `onReading` is called as the weight grows. */
  grind(grindTimeS: number, onReading: (doseG: number) => void): Promise<number>;
  /** Doses without the timer: ground to the weight on the scale, filled and struck level, to a line, or by eye. */
  doseBy(way: Exclude<ServicePolicy['dosing'], 'timed'>, doseG: number): Promise<number>;
}

/** Everything that makes one pull, so that it can be kept over a reload. */
export interface PullStart {
  id: string;
  /** The puck that it meets, where the simulated bar draws from a seed; absent: the pull's own. */
  draw?: string;
  startedAtMs: number;
  doseG: number;
  /** How that is known; absent: on the scale. */
  doseWay?: DoseWay | undefined;
  /** Seconds after which the pump was stopped; null while it runs. */
  stoppedAtS: number | null;
  /** What the machine's volume counter stops at by itself; null: a hand stops it. */
  stopsAtCount?: number | null;
  /** What happens to the simulated scale in this pull. */
  mishap?: ScaleMishap | null;
  /** What a scale said elsewhere, read from its file; absent: it is pulled here. */
  recorded?: MassTrace;
}

export interface PullPort {
  /** Whether a scale stands under the cup, be it silent just now; otherwise only the clock runs. */
  readonly weighs: boolean;
  /** Seconds since the pump started, by the device's clock. */
  elapsedS(): number;
  /** The scale's readings since the pump started. */
  trace(): MassTrace;
  /** Stops the clock. @param atS when the pump stopped, where the machine said so; absent: now @returns the shot time in seconds */
  stopPump(atS?: number): number;
  /** When the pump stopped, by hand or by itself; null while it runs. */
  stoppedAtS(): number | null;
  /** Whether the last drop has fallen. */
  settled(): boolean;
  /** Whether the scale is gone: the trace ends where it was lost, and the clock runs on. */
  lost(): boolean;
  /** What the machine's volume counter shows; null where it has none. */
  volumeCount(): number | null;
  /** What stands in a simulated cup, which anybody may look into, g; null where the cup is real. */
  cupG(): number | null;
  /** Nobody looks any more: what was read is kept for whoever takes the pull up again. */
  leave(): void;
  /** It is over: nothing of it is listened to or kept any more. */
  end(): void;
}
