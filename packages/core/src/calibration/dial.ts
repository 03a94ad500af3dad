/** How a grinder's collar is read. Settings are dial numbers; x counts marks finer than a reference setting. */
export interface Dial {
  /** Smallest move: 1 for a stepped collar, e.g. 0.1 for a stepless one. */
  stepMarks: number;
  /** Whether smaller or larger dial numbers grind finer. */
  finer: 'down' | 'up';
  /** Where the collar ends, when known. */
  range: { min: number; max: number } | null;
}

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

/** All settings within `maxSteps` steps of `from` that the collar can reach, nearest first. */
export function reachableSettings(dial: Dial, from: number, maxSteps: number): number[] {
  const settings = [from];
  for (let step = 1; step <= maxSteps; step += 1) {
    for (const sign of [1, -1]) {
      const setting = settingAt(dial, sign * step * dial.stepMarks, from);
      if (!dial.range || (setting >= dial.range.min && setting <= dial.range.max)) settings.push(setting);
    }
  }
  return settings;
}
