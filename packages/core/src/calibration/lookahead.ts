import { chanceBetween, normalCdf } from '../numbers/index.ts';
import type { AdviceCase } from './adviceCase.ts';
import { marksFiner, settingAt, mostStepsOf } from './dial.ts';
import { engineDefaults } from './engineDefaults.ts';
import type { DialLine } from './move.ts';
import { effectOfShot, meanAt, sdAt, type ResponseLine } from './responseLine.ts';
import { purgeAdviceG } from './retention.ts';
import { trimReach } from './trim.ts';

/** A next shot at a setting, and what it is expected to cost until the station locks: in shots, grams and minutes priced alike. */
export interface ExpectedCost {
  setting: number;
  cost: number;
}

type Station = Pick<AdviceCase, 'dial' | 'recipe' | 'house' | 'retentionG'> &
  Partial<Pick<AdviceCase, 'shots' | 'measured'>>;

/** The station seen from the lookahead: everything in marks finer than the reference and in ln T. */
interface View {
  middle: number;
  half: number;
  sureness: number;
  step: number;
  mostSteps: number;
  lowestX: number;
  highestX: number;
  moveCost: number;
  /** Farthest that a trim of the dose may move ln T. */
  trimReach: number;
}

/**
 * Value of information: for a repeat where the collar stands and for moves to the marks in question, the expected cost
 * until the house's sureness is reached, looking two shots ahead (Raiffa and Schlaifer 1961, preposterior analysis; the
 * line's doubt after a shot is known before it is pulled).
 * It plays under the rules of the decision: a lock wants the house's sureness and a shot that lies inside itself.
 * @returns the repeat first, then the moves to `targets`
 */
export function expectedCosts(
  dialLine: DialLine,
  station: Station,
  from: number,
  targets: readonly number[],
): ExpectedCost[] {
  const { line, reference } = dialLine;
  const view = viewOf(station, dialLine);
  const fromX = marksFiner(station.dial, from, reference);
  const xs = [from, ...targets].map((setting) => marksFiner(station.dial, setting, reference));
  return xs.map((x) => ({
    setting: settingAt(station.dial, x, reference),
    cost: costOfShot(view, x !== fromX) + expectedAfter(line, view, x),
  }));
}

function viewOf(station: Station, { line, reference }: DialLine): View {
  const { dial, recipe } = station;
  const ends = dial.range
    ? [dial.range.min, dial.range.max].map((setting) => marksFiner(dial, setting, reference))
    : [-Infinity, Infinity];
  return {
    middle: Math.log(recipe.timeS.min * recipe.timeS.max) / 2,
    half: Math.log(recipe.timeS.max / recipe.timeS.min) / 2,
    sureness: station.house.sureness,
    step: dial.stepMarks,
    mostSteps: mostStepsOf(dial),
    lowestX: Math.min(...ends),
    highestX: Math.max(...ends),
    moveCost: costOfMove(station),
    trimReach: trimReach(station, line),
  };
}

/** A shot costs one; the purge and the turn of a move are priced by their grams and minutes beside it. */
function costOfMove({ recipe, retentionG }: Station): number {
  const { moveMin, shotMin } = engineDefaults;
  return (purgeAdviceG(recipe.doseG, retentionG) / recipe.doseG + moveMin / shotMin) / 2;
}

function costOfShot(view: View, moved: boolean): number {
  return 1 + (moved ? view.moveCost : 0);
}

/** The marks next to where the line meets the window's middle, by offsets in steps from the one on its coarser side. */
function marksInQuestion(line: ResponseLine, view: View, fromX: number, offsets: readonly number[]): number[] {
  const steps = Math.floor((view.middle - meanAt(line, fromX)) / line.response / view.step);
  const most = view.mostSteps;
  const inReach = offsets.map((offset) => {
    const x = fromX + Math.min(most, Math.max(-most, steps + offset)) * view.step;
    return Math.min(view.highestX, Math.max(view.lowestX, x));
  });
  return [...new Set(inReach)];
}

/** Equally likely surprises of a shot, in sd. */
const SURPRISES = [-1.69, -1.1, -0.75, -0.47, -0.23, 0, 0.23, 0.47, 0.75, 1.1, 1.69];

/** Expected cost after one more shot at x. */
function expectedAfter(line: ResponseLine, view: View, x: number): number {
  const now = prospects(line, view);
  const open = 1 - chanceToLock(line, now(x), view, x);
  const effect = effectOfShot(line, x);
  // What doubt the shot leaves does not depend on what it shows, so it is worked out once for all surprises.
  const next = prospects(effect.after(0), view);
  const reach = now(x).reach;
  let cost = 0;
  let nodes = 0;
  for (const z of SURPRISES) {
    const after = effect.after(z);
    const shotOff = meanAt(line, x) + effect.surpriseSd * z - view.middle;
    if (Math.abs(meanAt(after, x) - view.middle) <= reach && Math.abs(shotOff) <= view.half) continue;
    nodes += 1;
    cost += costToGo(after, next, view, x);
  }
  return open * (nodes === 0 ? costBeyond(line, view, x) : cost / nodes);
}

/** The least expected cost with one shot to look ahead: the last step of the lookahead. */
function costToGo(line: ResponseLine, next: Prospects, view: View, fromX: number): number {
  const at = (x: number): number =>
    costOfShot(view, x !== fromX) + (1 - chanceToLock(line, next(x), view, x)) * costBeyond(line, view, x);
  return Math.min(at(fromX), ...marksInQuestion(line, view, fromX, [0, 1]).map(at));
}

/** Cost of what comes after the lookahead: the less a mark is likely to hold, the more is still ahead of it. */
function costBeyond(line: ResponseLine, view: View, x: number): number {
  const { costBeyondLookahead, leastHope } = engineDefaults;
  const reach = view.half + view.trimReach;
  const hope = chanceBetween(meanAt(line, x), sdAt(line, x), view.middle - reach, view.middle + reach);
  return costBeyondLookahead / Math.max(hope, leastHope);
}

/** What a shot at x would leave, whatever it shows. */
interface Prospect {
  /** How far from the window's middle the mean may lie after it and still be trusted, in ln T; negative: nowhere. */
  reach: number;
  /** Sd of how far the mean moves with it. */
  meanSd: number;
  /** Sd of the shot itself, as seen from now. */
  surpriseSd: number;
}
type Prospects = (x: number) => Prospect;

function prospects(line: ResponseLine, view: View): Prospects {
  const known = new Map<number, Prospect>();
  return (x) => {
    const before = known.get(x);
    if (before) return before;
    const effect = effectOfShot(line, x);
    const sdAfter = sdAt(effect.after(0), x);
    const meanSd = Math.sqrt(Math.max(0, sdAt(line, x) ** 2 - sdAfter ** 2));
    const prospect = { reach: lockReach(sdAfter, view), meanSd, surpriseSd: effect.surpriseSd };
    known.set(x, prospect);
    return prospect;
  };
}

/** Chance that one more shot at x lets the house lock there. */
function chanceToLock(line: ResponseLine, { reach, meanSd, surpriseSd }: Prospect, view: View, x: number): number {
  if (reach < 0) return 0;
  // One surprise moves both: the mean by meanSd, the shot by surpriseSd.
  const off = meanAt(line, x) - view.middle;
  const low = Math.max((-reach - off) / meanSd, (-view.half - off) / surpriseSd);
  const high = Math.min((reach - off) / meanSd, (view.half - off) / surpriseSd);
  return high <= low ? 0 : normalCdf(high) - normalCdf(low);
}

const BISECTIONS = 12;

/** How far from the window's middle a mean with this doubt may lie and still be trusted, in ln T; negative: nowhere. */
function lockReach(sd: number, { half, sureness }: View): number {
  const sure = (off: number): boolean => chanceBetween(off, sd, -half, half) >= sureness;
  if (!sure(0)) return -1;
  let low = 0;
  let high = half;
  for (let i = 0; i < BISECTIONS; i += 1) {
    const off = (low + high) / 2;
    if (sure(off)) low = off;
    else high = off;
  }
  return low;
}
