import type { AdviceCase, CaseShot } from './adviceCase.ts';
import type { CaseFit } from './caseFit.ts';
import { marksFiner } from './dial.ts';
import { isDoseNear } from './doseTolerance.ts';
import { engineDefaults } from './engineDefaults.ts';
import { normalisedTime } from './normalisedTime.ts';
import { isChoke } from './observationOf.ts';
import { meanAt, type ResponseLine } from './responseLine.ts';
import { windowMiddleS } from './windowMiddle.ts';
import { missOf } from './windowMiss.ts';

/** Whether a shot's dose is near enough to the recipe's, trimmed or not, to speak for the setting. */
const doseSound = (shot: Pick<CaseShot, 'doseG' | 'measured'>, input: Pick<AdviceCase, 'recipe'>): boolean =>
  isDoseNear(shot, input, Math.max(...engineDefaults.trimsG));

/** A sound shot where the collar stands, and how far it lay outside the window: 0 inside, negative when too fast. */
export interface PouredShot {
  doseG: number;
  normalisedS: number;
  missS: number;
  /** Whether it was poured before the setting was last locked. */
  beforeLock: boolean;
}

/** So many of the newest shots at a setting speak for it: more would outvote what the hour has changed since. */
const SHOTS_THAT_SPEAK = 6;

/**
 * The newest sound shots at a setting since the collar last came there, oldest first, those from before it was last locked
 * included: a lock among them changes nothing.
 */
export function soundShotsAt(input: AdviceCase, { heard }: Pick<CaseFit, 'heard'>, setting: number): PouredShot[] {
  const since = input.shots.findLastIndex((shot) => shot.setting !== setting) + 1;
  const here = input.shots.slice(since).flatMap((shot: CaseShot, i) => {
    const outcome = heard[since + i];
    const sound = outcome && outcome.oldShare <= engineDefaults.oldShareNotPurged;
    return sound ? pouredOf(shot, outcome.normalisedS, input, false) : [];
  });
  return (since > 0 ? here : [...beforeLock(input, setting), ...here]).slice(-SHOTS_THAT_SPEAK);
}

/** A shot as it speaks for its mark; none where it has a fault or its dose is another. */
export function pouredOf(
  shot: CaseShot,
  normalisedS: number | null,
  input: AdviceCase,
  beforeLock: boolean,
): PouredShot[] {
  if (shot.fault !== null || normalisedS === null || !doseSound(shot, input)) return [];
  return [{ doseG: shot.doseG, normalisedS, missS: missOf(normalisedS, input.recipe.timeS), beforeLock }];
}

/** A lock takes no evidence away: what was poured at this setting before it goes on counting. */
function beforeLock(input: AdviceCase, setting: number): PouredShot[] {
  const earlier = input.earlier ?? [];
  const since = earlier.findLastIndex((shot) => shot.setting !== setting) + 1;
  return earlier
    .slice(since)
    .filter((shot) => !isChoke(shot, input.recipe))
    .flatMap((shot) => pouredOf(shot, normalisedTime(shot, input.recipe).normalisedS, input, true));
}

/** So many sound shots on one side of the window in a row turn into something that is done. */
export const SHOTS_THAT_ADD_UP = 3;

/** The newest shots that lie outside on one and the same side; none when the last one lies inside. */
function runOutside(shots: readonly PouredShot[]): readonly PouredShot[] {
  const side = Math.sign(shots.at(-1)?.missS ?? 0);
  const before = shots.findLastIndex(({ missS }) => Math.sign(missS) !== side);
  return side === 0 ? [] : shots.slice(before + 1);
}

/** Sds of a shot beyond the window that no noise explains. */
const FAR_SDS = 4;

/**
 * Whether a shot lies outside by more than the larger of the window's width and four sd of a shot; however roughly its yield is known,
 * what is over in half the time was not only badly seen.
 */
function isFarOut({ missS }: PouredShot, { recipe }: Pick<AdviceCase, 'recipe'>, line: ResponseLine): boolean {
  const { min, max } = recipe.timeS;
  const fourSdS = FAR_SDS * Math.sqrt(line.shotVariance) * windowMiddleS(recipe.timeS);
  return Math.abs(missS) > Math.max(max - min, Math.min(fourSdS, min / 2));
}

/**
 * The line as what was just poured says it, where memory says otherwise: its level is as unknown as never, and hears these shots
 * alone; what a mark is worth stays. It never takes back what the line already holds: of the two the one that lies
 * farther out, on the side of the shots, is given.
 * @param lnTimeS mean of the shots @param variance of that mean
 */
function asPoured(line: ResponseLine, x: number, lnTimeS: number, variance: number, slow: boolean): ResponseLine {
  const before = meanAt(line, x);
  const open = engineDefaults.levelSdNever ** 2;
  const mean = before + (open / (open + variance)) * (lnTimeS - before);
  if (slow ? mean <= before : mean >= before) return line;
  const levelVariance = (open * variance) / (open + variance);
  return {
    ...line,
    level: mean - line.response * x,
    levelVariance: levelVariance + line.responseVariance * x ** 2,
    levelResponseCovariance: -line.responseVariance * x,
  };
}

/** What decisions go by: the fit, unless what was poured lies so far out, or so often on one side, that it speaks first. */
export interface Spoken {
  line: ResponseLine;
  /** The last shot asks for a move, not for another one. */
  farOut: boolean;
  /** Shots enough on one side: something is done about it now. */
  addsUp: boolean;
  /** Shots here in a row outside on the side of the last one, chokes included. */
  outside: number;
}

/** Lets the newest shots at a setting speak before the memory does. */
export function spokenBy(input: AdviceCase, fit: CaseFit, from: number, choked: boolean): Spoken {
  const { line, reference } = fit;
  const x = marksFiner(input.dial, from, reference);
  if (choked) {
    const chokes = input.shots.filter((shot) => shot.setting === from && isChoke(shot, input.recipe)).length;
    return { line: afterChoke(input, line, x), farOut: true, addsUp: false, outside: chokes };
  }
  const run = runOutside(soundShotsAt(input, fit, from));
  const last = run.at(-1);
  if (!last) return { line, farOut: false, addsUp: false, outside: 0 };
  const farOut = isFarOut(last, input, line);
  const addsUp = run.length >= SHOTS_THAT_ADD_UP;
  const outside = run.length;
  if (!farOut && !addsUp) return { line, farOut, addsUp, outside };
  const lns = run.map(({ normalisedS }) => Math.log(normalisedS));
  const mean = lns.reduce((sum, ln) => sum + ln, 0) / lns.length;
  return { line: asPoured(line, x, mean, line.shotVariance / lns.length, last.missS > 0), farOut, addsUp, outside };
}

/** Whether the last sound shot lies so far out that it asks for a move at once. */
export function isLastFarOut(input: AdviceCase, fit: CaseFit): boolean {
  const last = input.shots.at(-1);
  return last !== undefined && spokenBy(input, fit, last.setting, false).farOut;
}

/** Whether the newest sound shots where the collar stands lie outside on one side so often that something is done about it. */
export const doesAddUp = (input: AdviceCase, fit: CaseFit, from: number): boolean =>
  spokenBy(input, fit, from, false).addsUp;

/** A choke is a bound: at least so slow, and commonly slower by about a quarter. */
const BEYOND_CHOKE = 0.25;

function afterChoke(input: AdviceCase, line: ResponseLine, x: number): ResponseLine {
  const shot = input.shots.at(-1);
  const boundS = Math.max(shot?.timeS ?? 0, input.recipe.timeS.max);
  return asPoured(line, x, Math.log(boundS) + BEYOND_CHOKE, BEYOND_CHOKE ** 2, true);
}
