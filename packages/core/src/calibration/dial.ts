import { engineDefaults } from './engineDefaults.ts';

/** How a grinder's collar is read. Settings are dial numbers; x counts marks finer than a reference setting. */
export interface Dial {
  /** Smallest move: 1 for a stepped collar, e.g. 0.1 for a stepless one. */
  stepMarks: number;
  /** Whether smaller or larger dial numbers grind finer. */
  finer: 'down' | 'up';
  /** Where the collar ends, when known. */
  range: { min: number; max: number } | null;
  /** No advice turns it by more steps than this at once; absent: as far as the engine ever goes. */
  mostSteps?: number;
}

/** How many steps one piece of advice may turn the collar. */
export const mostStepsOf = ({ mostSteps }: Dial): number => mostSteps ?? engineDefaults.maxMoveSteps;

export type Direction = 'finer' | 'coarser';

/** Marks finer than `reference`; negative is coarser. */
export function marksFiner(dial: Dial, setting: number, reference: number): number {
  return dial.finer === 'down' ? reference - setting : setting - reference;
}

/** The dial number that is `marks` finer than `reference`, cleaned of floating point dust. */
export function settingAt(dial: Dial, marks: number, reference: number): number {
  return cleanSetting(dial.finer === 'down' ? reference - marks : reference + marks);
}

/** Which way the collar turns between two settings; null when it stays. */
export function directionOf(dial: Dial, from: number, to: number): Direction | null {
  const marks = marksFiner(dial, to, from);
  if (marks === 0) return null;
  return marks > 0 ? 'finer' : 'coarser';
}

/** Dial numbers are read to a thousandth at best; arithmetic on 0.1 steps would otherwise show 14.299999. */
export function cleanSetting(setting: number): number {
  const clean = Math.round(setting * 1000) / 1000;
  return clean === 0 ? 0 : clean;
}

/**
 * Settings that the collar can reach about `marks` finer than `from`, up to `about` steps to either side, nearest to
 * `from` first.
 */
export function settingsAbout(dial: Dial, from: number, marks: number, about: number): number[] {
  const most = mostStepsOf(dial);
  const centre = Math.min(most, Math.max(-most, Math.round(marks / dial.stepMarks)));
  const ends = dial.range ?? { min: -Infinity, max: Infinity };
  return Array.from({ length: 2 * about + 1 }, (_, i) => centre - about + i)
    .filter((steps) => Math.abs(steps) <= most)
    .sort((a, b) => Math.abs(a) - Math.abs(b))
    .map((steps) =>
      cleanSetting(Math.min(ends.max, Math.max(ends.min, settingAt(dial, steps * dial.stepMarks, from)))),
    );
}
