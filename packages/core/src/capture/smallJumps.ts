import { mean } from '../numbers/index.ts';
import { readingSdG } from './flow.ts';
import { levelOf, type Sign } from './trace.ts';

/** A scale that jumps does so within this time, its own lag included. */
const JUMP_S = 1;
/** The flow that a change is held against: the middle one over this long, half before and half after. */
const FLOW_S = 2.6;
/** A scale reads to a tenth of a gram: the flow is told over this long. */
const BLUR_S = 0.5;
/** Readings whose mean tells the level beside a jump. */
const LEVEL_SAMPLES = 4;
/** Less than this is noise, a drop, or no matter. */
const LEAST_JUMP_G = 0.25;
/** It must stand out of the scale's own noise: every moment of the shot is looked at. */
const NOISE_SDS = 5;
/** A jump is where this share of it happened. */
const MOST_OF_IT = 0.9;
/** A scale jumps once, or twice; what falls again and again are drops. */
const MOST_JUMPS = 2;

interface Jump {
  /** First sample that it moved, and the samples it took. */
  from: number;
  samples: number;
  byG: number;
}

/**
 * Takes small jumps of the scale out of a clean trace: mass that came or went within a second while the flow before and
 * after is one. Any flow that only swells or only falls is its own median, so an onset, a channel or the pump's end is no
 * jump; a spurt lasts longer than one.
 * @returns the trace without them, and a sign for each
 */
export function takeOutSmallJumps(massG: readonly number[], hz: number): { massG: number[]; signs: Sign[] } {
  const jumps: Jump[] = [];
  let level = [...massG];
  while (jumps.length <= MOST_JUMPS) {
    const jump = largestJump(level, hz);
    if (!jump) break;
    jumps.push(jump);
    level = without(level, jump);
  }
  if (jumps.length > MOST_JUMPS) return { massG: [...massG], signs: [] };
  return { massG: level, signs: jumps.map(({ from }) => ({ kind: 'tareJump', atS: from / hz })) };
}

/** The largest change that the flow about it does not explain, in the fewest samples that show it; null when none stands out. */
function largestJump(massG: readonly number[], hz: number): Jump | null {
  const levels = levelsBeyondFlow(massG, hz);
  const leastG = Math.max(LEAST_JUMP_G, NOISE_SDS * readingSdG(massG));
  const longest = Math.max(1, Math.round(JUMP_S * hz));
  const best: Jump[] = [];
  for (let samples = 1; samples <= longest; samples += 1) {
    let largest: Jump = { from: 0, samples, byG: 0 };
    for (let from = 1; from + samples <= massG.length; from += 1) {
      const byG = (levels.after[from + samples - 1] ?? 0) - (levels.before[from - 1] ?? 0);
      if (Math.abs(byG) < leastG || Math.abs(byG) <= Math.abs(largest.byG)) continue;
      // Where the flow breaks off between two samples, as much as one of them brings is no jump.
      const breaksG = Math.max(...levels.breaksG.slice(from - 1, from + samples + 1));
      if (Math.abs(byG) >= leastG + breaksG) largest = { from, samples, byG };
    }
    best.push(largest);
  }
  const mostG = Math.max(...best.map(({ byG }) => Math.abs(byG)));
  if (mostG === 0) return null;
  return best.find(({ byG }) => Math.abs(byG) >= MOST_OF_IT * mostG) ?? null;
}

function without(massG: readonly number[], { from, samples, byG }: Jump): number[] {
  return massG.map((mass, i) => mass - byG * Math.min(1, Math.max(0, (i - from + 1) / samples)));
}

/**
 * What each sample shows beyond the middle flow about it, g: the mean of it and the few before, and of it and the few after; and by how
 * much the flow of one sample differs before and after it.
 */
function levelsBeyondFlow(
  massG: readonly number[],
  hz: number,
): { before: number[]; after: number[]; breaksG: number[] } {
  // Over a few samples: a scale's readings are so coarse that single rises have no middle.
  const half = Math.max(1, Math.round((BLUR_S * hz) / 2));
  const flows = massG.map((_, i) => {
    const [from, to] = [Math.max(0, i - half), Math.min(massG.length - 1, i + half)];
    return ((massG[to] ?? 0) - (massG[from] ?? 0)) / Math.max(1, to - from);
  });
  const longest = Math.max(1, Math.round((FLOW_S * hz) / 2));
  let flowedG = 0;
  const beyond = massG.map((mass, i) => {
    // As much on either side, so that a flow that only falls stays its own median at the trace's end too.
    const reach = Math.min(longest, i, massG.length - 1 - i);
    if (i > 0) flowedG += levelOf(flows.slice(i - reach, i + reach + 1));
    return mass - flowedG;
  });
  return {
    before: beyond.map((_, i) => mean(beyond.slice(Math.max(0, i - LEVEL_SAMPLES + 1), i + 1))),
    after: beyond.map((_, i) => mean(beyond.slice(i, i + LEVEL_SAMPLES))),
    breaksG: flows.map((_, i) =>
      Math.abs(levelOf(flows.slice(Math.max(0, i - longest), i + 1)) - levelOf(flows.slice(i, i + longest + 1))),
    ),
  };
}
