import { mean } from '../numbers/index.ts';

/** A shot that the machine stopped by itself: what its button was set to count, and what was in the cup. */
export interface VolumeShot {
  count: number;
  yieldG: number;
}

/** A first guess of water per count may be off by a lot: no step changes the programme by more than this share. */
const MOST_CHANGE_SHARE = 0.3;

/**
 * The next count of a group's volume button, from the mean of checked yields. What one count adds to the cup is the slope
 * between counts that were tried; with one count only, all of its water is taken to reach the cup, which asks for a
 * little too little and closes in from one side.
 * @returns whole counts
 * @throws RangeError when no shot was checked or a count is not positive
 */
export function nextVolumeCount(shots: readonly VolumeShot[], targetG: number): number {
  const last = shots.at(-1);
  if (!last) throw new RangeError('nextVolumeCount: no shot was checked');
  if (shots.some(({ count }) => !(count > 0))) throw new RangeError('nextVolumeCount: a count must be above 0');
  const now = shots.filter(({ count }) => count === last.count);
  const meanG = now.reduce((sum, { yieldG }) => sum + yieldG, 0) / now.length;
  const change = (targetG - meanG) / gramsPerCount(shots, meanG / last.count);
  const most = MOST_CHANGE_SHARE * last.count;
  return Math.max(1, Math.round(last.count + Math.min(most, Math.max(-most, change))));
}

/** Least-squares slope of yield over count; `otherwise` when only one count was tried or the slope makes no sense. */
function gramsPerCount(shots: readonly VolumeShot[], otherwise: number): number {
  const meanCount = shots.reduce((sum, { count }) => sum + count, 0) / shots.length;
  const meanG = shots.reduce((sum, { yieldG }) => sum + yieldG, 0) / shots.length;
  const square = shots.reduce((sum, { count }) => sum + (count - meanCount) ** 2, 0);
  const cross = shots.reduce((sum, { count, yieldG }) => sum + (count - meanCount) * (yieldG - meanG), 0);
  return square > 0 && cross > 0 ? cross / square : Math.max(otherwise, Number.EPSILON);
}

/** A volume button, and the count that it is programmed to. */
export interface VolumeButton {
  name: string;
  counts: number;
}

/** A group's buttons once one of them was programmed anew. */
export const programmed = <T extends VolumeButton>(buttons: readonly T[], name: string, counts: number): T[] =>
  buttons.map((button) => (button.name === name ? { ...button, counts } : button));

/** As many yields as a mean wants. */
export const ENOUGH_YIELDS = 3;

/** What a volume button gives in the mean, and what it should count. */
export interface JudgedButton {
  meanG: number;
  /** Yields at the count that it has now. */
  measured: number;
  enough: boolean;
  /** The count it is to have: the one it has, where the mean lies inside the tolerance. */
  nextCount: number;
}

/**
 * Judges a volume button by the yields it gave.
 * @param shots at any count; only those at `counts` are judged, the others teach what a count is worth
 * @returns null when nothing was measured at `counts`
 */
export function judgeButton(
  shots: readonly VolumeShot[],
  counts: number,
  { yieldG, yieldToleranceG }: { yieldG: number; yieldToleranceG: number },
): JudgedButton | null {
  const now = shots.filter(({ count }) => count === counts);
  if (now.length === 0) return null;
  const meanG = mean(now.map((shot) => shot.yieldG));
  const holds = Math.abs(meanG - yieldG) <= yieldToleranceG;
  const before = shots.filter(({ count }) => count !== counts);
  return {
    meanG,
    measured: now.length,
    enough: now.length >= ENOUGH_YIELDS,
    nextCount: holds ? counts : nextVolumeCount([...before, ...now], yieldG),
  };
}
