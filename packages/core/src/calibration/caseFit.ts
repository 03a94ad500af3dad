import type { ShotOutcome } from './adviceCase.ts';
import type { BarModel } from './barModel.ts';
import type { ResponseLine } from './responseLine.ts';

/** What the engine holds after hearing every shot of a case. */
export interface CaseFit {
  /** What it holds now, as a line over the dial. */
  line: ResponseLine;
  /** The line as it was just before the last shot; the same as `line` when there is none. */
  before: ResponseLine;
  bar: BarModel;
  /** Dial number at x = 0. */
  reference: number;
  /** One entry a shot, in order. */
  heard: readonly ShotOutcome[];
}
