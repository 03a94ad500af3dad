import type { AdviceCase } from './adviceCase.ts';
import type { Advice, AdviceAction, Weighed } from './advice.ts';
import { aimFrom, isPredictedIn, middleThirdLn, offMiddle, type Aim } from './aim.ts';
import { causeBeside } from './besides.ts';
import { liesBetween } from './betweenMarks.ts';
import type { CaseFit } from './caseFit.ts';
import { marksFiner, settingAt } from './dial.ts';
import { engineDefaults } from './engineDefaults.ts';
import { aimedTrimG, atDoseS, type Judgement } from './judgement.ts';
import { collarAnswers } from './collarAnswers.ts';
import { lockVerdict } from './lockRule.ts';
import { expectedCosts } from './lookahead.ts';
import { expectAt, type DialLine, type Expected } from './move.ts';
import { SHOTS_THAT_ADD_UP, soundShotsAt, spokenBy, type PouredShot, type Spoken } from './poured.ts';
import { purgeAdviceG } from './retention.ts';
import { offeredTrim } from './trim.ts';
import { windowMiddleS } from './windowMiddle.ts';
import { missOf } from './windowMiss.ts';

/** The action with its expected outcome, before words are found for it. */
export interface Decision {
  action: AdviceAction;
  expected: Expected;
  /** What is expected where the collar stands, as the decision saw it. */
  here: Expected;
  purgeG: number;
  /** No mark of the dial is likely to do it; this is the best there is. */
  beyondDial: boolean;
  weighed: Weighed | null;
  /** Chance of the window here, where nothing in reach can do better; null elsewhere. */
  closeEnough: number | null;
  /** What decided, where a rule of good sense did and not the costs. */
  because: Advice['because'];
}

const decision = (action: AdviceAction, expected: Expected, more: Partial<Decision> = {}): Decision => ({
  action,
  expected,
  here: expected,
  purgeG: 0,
  beyondDial: false,
  weighed: null,
  closeEnough: null,
  because: null,
  ...more,
});

/** What to do after a judged shot: what good sense asks first, then what gains in chance. */
export function decide(input: AdviceCase, fit: CaseFit, judgement: Judgement, from: number): Decision {
  const fullPurgeG = purgeAdviceG(input.recipe.doseG, input.retentionG);
  // What was pulled before speaks of another cup, and memory of where it held: neither turns what the tongue asked for.
  if (input.untried) return decision('repeat', expectAt(fit, input, from, input.trimG));
  switch (judgement.kind) {
    case 'moved':
    case 'notPurged':
      return decision('repeat', expectAt(fit, input, from), { purgeG: Math.max(0, fullPurgeG - input.purgedG) });
    case 'noEvidence':
      return decision('repeat', expectAt(fit, input, from, aimedTrimG(input, fit)));
    case 'noShot':
      return beforeAnyShot(input, fit, from, fullPurgeG);
    case 'doseOff':
      return decision('dose', expectAt(fit, input, from, judgement.doseG - input.recipe.doseG), {
        here: expectAt(fit, input, from),
      });
    case 'choked':
    case 'sound':
      return afterShot(input, fit, judgement, from, fullPurgeG);
  }
}

/** Only a collar that was moved since it last held may be put back on memory alone; else a shot comes first. */
function beforeAnyShot(input: AdviceCase, fit: CaseFit, from: number, fullPurgeG: number): Decision {
  const here = expectAt(fit, input, from, input.trimG);
  const plain = expectAt(fit, input, from);
  const back = input.held === null ? here : expectAt(fit, input, input.held.setting);
  const best = back.setting === from ? here : aimFrom(fit, input, from).target;
  if (input.held === null && input.shots.length === 0) {
    const guess = firstGuess(input, fit, from);
    return guess.setting === from
      ? decision('repeat', here, { here: plain })
      : decision('move', guess, { purgeG: fullPurgeG, here: plain });
  }
  // Back to where it held, unless another mark is clearly likelier by now.
  const target = best.inWindow > back.inWindow + engineDefaults.backMargin ? best : back;
  const putBack = target.setting !== from && target.inWindow > here.inWindow + engineDefaults.moveMargin;
  return putBack
    ? decision('move', target, { purgeG: fullPurgeG, here: plain })
    : decision('repeat', here, { here: plain });
}

/** Where nothing is known: by the feel of its grounds, or where the house begins; else where it stands. */
function firstGuess(input: AdviceCase, fit: CaseFit, from: number): Expected {
  if (input.felt) return aimFrom(fit, input, from).target;
  return expectAt(fit, input, input.startAt ?? from);
}

function afterShot(input: AdviceCase, fit: CaseFit, judgement: Judgement, from: number, fullPurgeG: number): Decision {
  const trimG = aimedTrimG(input, fit);
  const spoken = spokenBy(input, fit, from, judgement.kind === 'choked');
  const seen: DialLine = { line: spoken.line, reference: fit.reference };
  const here = expectAt(seen, input, from, trimG);
  const plain = trimG === 0 ? here : expectAt(seen, input, from);
  const aimed = neverReversed(aimFrom(seen, input, from), plain, judgement, input);
  // Between two marks that were both tried nobody turns on: the nearer one stays.
  const between = liesBetween(input, fit, from, aimed.target.setting);
  const aim = between ? { ...aimed, target: plain } : aimed;
  const poured = pouredFor(input, fit, from, trimG);
  const verdict = lockVerdict(input, poured, here, !isBetter(aim.target, here, input));
  const because = reasonOf(spoken, aim);
  if (judgement.kind === 'sound' && verdict.lock && !spoken.farOut) {
    return decision('lock', here, { here: plain, beyondDial: verdict.settled && here.inWindow < input.house.sureness });
  }
  const move = (target: Expected, more: Partial<Decision> = {}): Decision =>
    decision('move', target, { purgeG: fullPurgeG, because, here: plain, ...more });
  const gushes = spoken.farOut && judgement.kind === 'sound' && judgement.missS < 0;
  if (gushes && !collarAnswers(input, fit)) {
    return decision('repeat', here, { here: plain, because: 'noAnswer' });
  }
  // Said once and before the collar; whoever has looked, or has no other bag, pulls again and is told to turn.
  if (spoken.farOut && spoken.outside <= 1 && causeBeside(input, judgement) !== null) {
    return decision('repeat', here, { here: plain, because: 'besides' });
  }
  const must = spoken.farOut || spoken.addsUp;
  if (must && aim.target.setting !== from) return move(aim.target);
  const trim = offeredTrim(input, { ...seen, heard: fit.heard }, from);
  if (trim !== 0 && trim !== trimG) return decision('repeat', expectAt(seen, input, from, trim), { here: plain });
  if (isSmallMiss(judgement) && spoken.outside <= 1 && input.house.smallMiss === 'tamp') {
    return decision('repeat', here, { here: plain, because: 'smallMiss' });
  }
  const nearest = aim.target.setting === from;
  if (nearest && (must || between || verdict.settled || stuck(poured, here, input))) {
    // A mark beside that nobody knows well may still do it: that is tried before anybody settles.
    const beside = isPredictedIn(here, input)
      ? null
      : untriedBeside(input, { ...seen, heard: fit.heard }, plain, judgement);
    if (beside) return move(beside);
    return decision('repeat', here, { here: plain, beyondDial: true, closeEnough: here.inWindow, because });
  }
  if (!lastTwoAsk(input, poured, from, aim.target.setting)) return decision('repeat', here, { here: plain });
  return byChance(input, seen, here, aim, judgement.kind === 'sound' && judgement.missS === 0, move);
}

/**
 * Whether the last two shots at a mark, or the only one, speak for turning to another: nobody turns coarser after two that ran no
 * slower than the middle of the window, nor finer after two that ran no faster, whatever other marks did. Another shot tells.
 */
function lastTwoAsk(input: AdviceCase, poured: readonly PouredShot[], from: number, to: number): boolean {
  if (poured.length === 0 || to === from) return true;
  const finer = Math.sign(marksFiner(input.dial, to, from));
  const middleS = windowMiddleS(input.recipe.timeS);
  return poured.slice(-2).some(({ normalisedS }) => -finer * Math.log(normalisedS / middleS) > middleThirdLn(input));
}

const isSmallMiss = (judgement: Judgement): boolean =>
  judgement.kind === 'sound' && judgement.missS !== 0 && Math.abs(judgement.missS) <= engineDefaults.smallMissS;

/** A shot that ran fast turns nothing coarser, and a slow one nothing finer: doubt may stay, it never reverses. */
function neverReversed(aim: Aim, here: Expected, judgement: Judgement, { dial }: AdviceCase): Aim {
  const missS = judgement.kind === 'sound' ? judgement.missS : 0;
  const finer = marksFiner(dial, aim.target.setting, here.setting);
  return missS * finer > 0 ? { ...aim, target: here } : aim;
}

/** Repeat, or move where that gains enough in chance; what both are expected to cost goes along for whoever asks why. */
function byChance(
  input: AdviceCase,
  seen: DialLine,
  here: Expected,
  { target }: Aim,
  inside: boolean,
  move: (target: Expected, more?: Partial<Decision>) => Decision,
): Decision {
  if (target.setting === here.setting) return decision('repeat', here, { weighed: weigh(input, seen, here, null) });
  const weighed = weigh(input, seen, here, target);
  // A shot that was good speaks for the mark it was pulled at: it is left for a mark that is much likelier only.
  const margin = inside ? engineDefaults.leaveGoodMargin : engineDefaults.moveMargin;
  const gains = target.inWindow > here.inWindow + margin;
  const hopeless = here.inWindow < engineDefaults.hopeless;
  return gains || (hopeless && isBetter(target, here, input))
    ? move(target, { weighed })
    : decision('repeat', here, { weighed });
}

/** What a repeat and the move are expected to cost until the lock; null where the house counts good shots. */
function weigh(input: AdviceCase, seen: DialLine, here: Expected, target: Expected | null): Weighed | null {
  if (input.house.lockRule !== 'sureness') return null;
  const [repeat, move] = expectedCosts(seen, input, here.setting, target ? [target.setting] : []);
  return repeat ? { repeatCost: repeat.cost, move: move ?? null } : null;
}

/** The sound shots here as they count at the dose they were poured for: an older one at another dose is carried over. */
const pouredFor = (input: AdviceCase, fit: CaseFit, from: number, trimG: number): PouredShot[] =>
  soundShotsAt(input, fit, from).map((shot) => {
    const normalisedS = atDoseS(shot.normalisedS, input, fit, trimG);
    return { ...shot, normalisedS, missS: missOf(normalisedS, input.recipe.timeS) };
  });

/** Likelier by more than noise; where neither is likely at all, nearer to the middle. */
function isBetter(other: Expected, here: Expected, input: AdviceCase): boolean {
  if (other.setting === here.setting) return false;
  const { moveMargin, hopeless } = engineDefaults;
  if (other.inWindow > here.inWindow + moveMargin) return true;
  return here.inWindow < hopeless && offMiddle(other, input) < offMiddle(here, input) - moveMargin;
}

/** The next mark on the way to the window, where it is likelier than here though its mean is predicted on the far side. */
function untriedBeside(
  input: AdviceCase,
  seen: DialLine & Pick<CaseFit, 'heard'>,
  here: Expected,
  judgement: Judgement,
): Expected | null {
  const slow = judgement.kind === 'choked' || (judgement.kind === 'sound' && judgement.missS > 0);
  const setting = settingAt(input.dial, (slow ? -1 : 1) * input.dial.stepMarks, here.setting);
  const { range } = input.dial;
  if (range && (setting < range.min || setting > range.max)) return null;
  if (liesBetween(input, seen, here.setting, setting)) return null;
  const beside = expectAt(seen, input, setting);
  return beside.inWindow > here.inWindow + engineDefaults.moveMargin ? beside : null;
}

/** Shots enough here, no mark nearer, and still not likely: more of the same would not help. */
const stuck = (poured: readonly PouredShot[], here: Expected, input: AdviceCase): boolean =>
  poured.length >= SHOTS_THAT_ADD_UP && !isPredictedIn(here, input);

function reasonOf({ farOut, addsUp }: Spoken, { endOfDial }: Aim): Decision['because'] {
  if (endOfDial) return 'endOfDial';
  if (farOut) return 'farOut';
  return addsUp ? 'addsUp' : null;
}
