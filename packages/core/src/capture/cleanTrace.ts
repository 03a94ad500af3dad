import { readingSdG } from './flow.ts';
import { takeOutSmallJumps } from './smallJumps.ts';
import { levelOf, type MassTrace, type Sign } from './trace.ts';

/** A trace without what is not coffee: every sample a number, jumps taken back, knocks bridged. */
export interface CleanTrace {
  hz: number;
  massG: number[];
  /** Gaps, knocks, jumps and a lifted cup, in order. */
  signs: Sign[];
  /** Where samples were lost or swung so far that what is there now is a guess, seconds. */
  bridgedS: number[];
  /** Seconds of samples that were lost in one piece, the longest; 0 when none. */
  longestGapS: number;
}

/** Shorter losses are bridged without a word. */
const GAP_S = 0.5;
/** No cup fills faster than this: a change beyond it is the scale's or a hand's. */
const FASTEST_GPS = 8;
const LEAST_CHANGE_G = 0.6;
/** Between two readings of a scale's own noise: a minute of them at 50 Hz holds none so far out. */
const NOISE_SDS = 5;
/** A disturbance is over once the readings have been plausible for this long. */
const CALM_S = 0.3;
/** What a knock leaves behind is less than this; what stays is a jump. */
const STAYS_G = 0.8;
/** What is left of a knock is less than this, and a knock swings by more than this beyond where it comes from and ends. */
const LEAST_STEP_G = 0.25;
const SWINGS_G = 0.4;
/** Something that leans on the scale and lets go within this time knocked it, however calm it was meanwhile. */
const KNOCK_S = 2;
/** Samples whose median tells the level beside a disturbance. */
const LEVEL_SAMPLES = 3;

/** Cleans a raw trace and says what was found in it. A lifted cup ends the trace. */
export function cleanTrace({ hz, massG }: MassTrace): CleanTrace {
  const { filled, gaps } = bridgeGaps(massG);
  const signs: Sign[] = gaps.flatMap(({ from, samples }) =>
    samples / hz >= GAP_S ? [{ kind: 'gap' as const, atS: from / hz }] : [],
  );
  const longestGapS = Math.max(0, ...gaps.map(({ samples }) => samples)) / hz;
  const level = takeOutSmallJumps(takeOutDisturbances(filled, hz, signs), hz);
  const all = [...signs, ...level.signs].sort((a, b) => a.atS - b.atS);
  return { hz, massG: level.massG, signs: all, bridgedS: signs.map(({ atS }) => atS), longestGapS };
}

interface Span {
  from: number;
  samples: number;
}

/** Lost samples on a straight line between their neighbours; at either end the nearest sample stands in. */
function bridgeGaps(massG: readonly (number | null)[]): { filled: number[]; gaps: Span[] } {
  const gaps: Span[] = [];
  const filled: number[] = [];
  let i = 0;
  while (i < massG.length) {
    const mass = massG[i];
    if (mass != null) {
      filled.push(mass);
      i += 1;
      continue;
    }
    let end = i;
    while (end < massG.length && massG[end] == null) end += 1;
    const next = massG[end] ?? null;
    const start = filled.at(-1) ?? next ?? 0;
    const rise = ((next ?? start) - start) / (end - i + 1);
    gaps.push({ from: i, samples: end - i });
    for (let j = 1; j <= end - i; j += 1) filled.push(start + rise * j);
    i = end;
  }
  return { filled, gaps };
}

/**
 * Walks over the trace from one implausible change to the next. A knock swings back and is bridged; a jump stays and is
 * taken back from all that follows; after a lifted cup nothing follows.
 */
function takeOutDisturbances(raw: readonly number[], hz: number, signs: Sign[]): number[] {
  const massG = [...raw];
  // A scale that swims by itself is not knocked at every other reading.
  const most = Math.max(LEAST_CHANGE_G, FASTEST_GPS / hz, NOISE_SDS * Math.SQRT2 * readingSdG(raw));
  const implausible = (i: number): boolean => Math.abs((massG[i] ?? 0) - (massG[i - 1] ?? 0)) > most;
  let lastJump: { sign: Sign; stays: number } | null = null;
  let i = 1;
  while (i < massG.length) {
    if (!implausible(i)) {
      i += 1;
      continue;
    }
    const end = endOfDisturbance(massG, i, hz, implausible);
    const before = levelOf(massG.slice(Math.max(0, i - LEVEL_SAMPLES), i));
    const after = levelOf(massG.slice(end, end + LEVEL_SAMPLES));
    const stays = after - before - flowAbout(massG, i, hz) * ((end - i + LEVEL_SAMPLES) / hz);
    if (stays < 0 && isLifted(massG, end, before, after, hz)) {
      signs.push({ kind: 'cupLifted', atS: i / hz });
      return massG.slice(0, i);
    }
    if (isSmallStep(massG.slice(i, end), before, after, stays)) {
      i = end + 1;
      continue;
    }
    const jumped = Math.abs(stays) > STAYS_G;
    const letsGo: boolean =
      jumped &&
      lastJump !== null &&
      i / hz - lastJump.sign.atS <= KNOCK_S &&
      Math.abs(lastJump.stays + stays) <= STAYS_G;
    if (letsGo && lastJump) {
      lastJump.sign.kind = 'knock';
      lastJump = null;
    } else {
      const sign: Sign = { kind: jumped ? 'tareJump' : 'knock', atS: i / hz };
      signs.push(sign);
      lastJump = jumped ? { sign, stays } : null;
    }
    if (jumped) for (let j = end; j < massG.length; j += 1) massG[j] = (massG[j] ?? 0) - stays;
    const from = massG[i - 1] ?? 0;
    const rise = ((massG[end] ?? from) - from) / (end - i + 1);
    for (let j = i; j < end; j += 1) massG[j] = from + rise * (j - i + 1);
    i = end + 1;
  }
  return massG;
}

/** A step to another level and no swing: what is too small for a jump of this size is left to `takeOutSmallJumps`. */
function isSmallStep(during: readonly number[], before: number, after: number, stays: number): boolean {
  if (Math.abs(stays) > STAYS_G || Math.abs(stays) < LEAST_STEP_G) return false;
  const [low, high] = [Math.min(before, after) - SWINGS_G, Math.max(before, after) + SWINGS_G];
  return during.every((mass) => mass >= low && mass <= high);
}

/** First sample after `from` that is followed by calm. */
function endOfDisturbance(
  massG: readonly number[],
  from: number,
  hz: number,
  implausible: (i: number) => boolean,
): number {
  const calm = Math.max(2, Math.round(CALM_S * hz));
  let end = from;
  for (let i = from + 1; i < massG.length && i - end <= calm; i += 1) if (implausible(i)) end = i;
  return end;
}

/** Flow before a disturbance, in g/s; 0 near the start. */
function flowAbout(massG: readonly number[], at: number, hz: number): number {
  const back = Math.round(hz);
  return at - 1 - back < 0 ? 0 : Math.max(0, (massG[at - 1] ?? 0) - (massG[at - 1 - back] ?? 0)) * (hz / back);
}

/** A drop to an empty scale, or most of the way there, after which nothing more flows. */
function isLifted(massG: readonly number[], end: number, before: number, after: number, hz: number): boolean {
  const LEAST_DROP_G = 2;
  const NEARLY_EMPTY_G = 1;
  const STILL_RISES_GPS = 0.3;
  if (before - after < LEAST_DROP_G) return false;
  if (after > NEARLY_EMPTY_G && after > before / 2) return false;
  const rest = massG.slice(end + LEVEL_SAMPLES);
  if (rest.length < hz) return true;
  const rise = levelOf(rest.slice(-LEVEL_SAMPLES)) - after;
  return rise / (rest.length / hz) < STILL_RISES_GPS;
}
