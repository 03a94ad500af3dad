import type { AdviceCase, CaseShot } from './adviceCase.ts';
import type { Advice } from './advice.ts';
import { tooSmallOrLarge } from './basket.ts';
import { causeBeside } from './besides.ts';
import type { Judgement } from './judgement.ts';
import type { CaseFit } from './caseFit.ts';
import type { Reason, Window } from './reason.ts';
import { NEEDED } from './lockRule.ts';
import { soundShotsAt } from './poured.ts';
import { trimByHand } from './trim.ts';
import { missOf } from './windowMiss.ts';
import { windowMiddleS } from './windowMiddle.ts';

type Decided = Omit<Advice, 'reasons'>;

/** The reasons of an advice, made from its numbers; the most telling first. */
export function reasonsFor(input: AdviceCase, fit: CaseFit, advice: Decided): Reason[] {
  if (input.untried) return [{ code: 'untried' }];
  return [
    ...leadingFirstDrop(input, advice),
    judgementReason(input, advice),
    ...senseReasons(input, advice),
    ...besideReasons(input, advice),
    ...actionReasons(input, fit, advice),
  ];
}

function judgementReason(input: AdviceCase, { judgement, from }: Decided): Reason {
  switch (judgement.kind) {
    case 'noShot':
      return noShotReason(input, from);
    case 'moved':
      return { code: 'moved', to: judgement.to };
    case 'notPurged':
      return { code: 'blend', oldShare: judgement.oldShare };
    case 'noEvidence':
      return { code: 'noEvidence', fault: judgement.fault };
    case 'choked':
      return { code: 'choked' };
    case 'doseOff':
      return { code: 'doseOff', byG: judgement.byG };
    case 'sound':
      return ranReason(judgement, input.recipe.timeS);
  }
}

/** The rule of good sense that decided, where one did. */
function senseReasons(input: AdviceCase, { because, judgement, from, here }: Decided): Reason[] {
  const { shots } = input;
  const slow = judgement.kind === 'choked' || (judgement.kind === 'sound' && judgement.missS > 0);
  switch (because) {
    case 'farOut':
      return judgement.kind === 'choked' ? [] : [{ code: 'farOut', slow }];
    case 'addsUp':
      return [{ code: 'addsUp', shots: shots.filter(({ setting }) => setting === from).length, slow }];
    case 'noAnswer':
      return [{ code: 'noAnswer' }];
    case 'besides': {
      const what = causeBeside(input, judgement);
      return what === null ? [] : [{ code: 'besides', what }];
    }
    case 'endOfDial':
      return [{ code: 'endOfDial', setting: from }];
    case 'smallMiss':
      return [{ code: 'trimByTamp', offS: windowMiddleS(input.recipe.timeS) - here.timeS }];
    case null:
      return [];
  }
}

/** Of a grinder that never held, first drops out of their window say the most: they come before the time does. */
const leadingFirstDrop = (input: AdviceCase, advice: Decided): Reason[] =>
  input.since === null ? firstDropReason(input, advice) : [];

function firstDropReason({ shots, recipe }: AdviceCase, { judgement }: Decided): Reason[] {
  const last = shots.at(-1);
  const window = recipe.firstDropS;
  if (judgement.kind !== 'sound' || !window || last?.firstDropS == null) return [];
  const missS = missOf(last.firstDropS, window);
  return missS === 0 ? [] : [{ code: 'firstDrop', firstDropS: last.firstDropS, missS }];
}

/** What the last shot shows beside its time: first drops out of their window, a dose that the basket was not made for. */
function besideReasons(input: AdviceCase, advice: Decided): Reason[] {
  const { shots, recipe } = input;
  const { judgement } = advice;
  const last = shots.at(-1);
  if (!last || judgement.kind === 'noShot' || judgement.kind === 'moved') return [];
  const basketG = tooSmallOrLarge(last, recipe);
  const reasons: Reason[] = [];
  if (basketG) {
    reasons.push({ code: 'basketTakes', doseG: last.doseG, minG: basketG.min, maxG: basketG.max });
  }
  return input.since === null ? reasons : [...reasons, ...firstDropReason(input, advice)];
}

function noShotReason({ held, since, felt, startAt }: AdviceCase, from: number): Reason {
  if (felt) return { code: 'felt', ...felt };
  if (startAt != null && startAt !== from) return { code: 'startsAt', setting: startAt };
  if (held !== null && held.setting !== from) return { code: 'movedUnseen', heldAt: held.setting, standsAt: from };
  return since === null ? { code: 'neverHeld' } : { code: 'noShotYet' };
}

const ranReason = ({ normalisedS, missS }: Extract<Judgement, { kind: 'sound' }>, { min, max }: Window): Reason => ({
  code: 'ran',
  normalisedS,
  missS,
  window: { min, max },
});

function actionReasons(input: AdviceCase, fit: CaseFit, advice: Decided): Reason[] {
  switch (advice.action) {
    case 'dose':
      return [{ code: 'weighDose', doseG: advice.doseG ?? input.recipe.doseG, setting: advice.from }];
    case 'move':
      return moveReasons(input, fit, advice);
    case 'lock':
      return [...lockReasons(input, fit, advice), ...trimReasons(advice), ...handTrimReasons(input, fit, advice)];
    case 'repeat':
      if (advice.because === 'noAnswer' || advice.because === 'besides' || advice.because === 'smallMiss') return [];
      if (advice.closeEnough !== null) return closeEnoughReasons(input, advice);
      return [...repeatReasons(input, fit, advice), ...trimReasons(advice)];
  }
}

function moveReasons(input: AdviceCase, fit: CaseFit, advice: Decided): Reason[] {
  const { predicted, here, from, setting, purgeG } = advice;
  const sd = Math.sqrt(fit.line.responseVariance);
  return [
    { code: 'chances', from, here: here.inWindow, setting, there: predicted.inWindow },
    { code: 'markWorth', seconds: fit.line.response * predicted.timeS, sdS: sd * predicted.timeS },
    ...(overshot(input, advice) ? [{ code: 'overshot' as const }] : []),
    ...(purgeG > 0 ? [{ code: 'purge' as const, grams: purgeG, first: false }] : []),
  ];
}

function lockReasons(input: AdviceCase, fit: CaseFit, { from, predicted }: Decided): Reason[] {
  const shots = input.shots.filter((shot) => shot.setting === from && shot.fault === null).length;
  const chance = predicted.inWindow;
  if (input.house.lockRule !== 'sureness') {
    return [{ code: 'houseCounts', shots: soundShotsAt(input, fit, from).length, setting: from }];
  }
  if (chance < input.house.sureness) return [{ code: 'noLikelierMark', shots, chance }];
  return [{ code: 'sureEnough', shots, setting: from, chance }];
}

/** No mark in reach does better: how close it comes, and where else to look. */
function closeEnoughReasons(input: AdviceCase, { from, predicted, closeEnough }: Decided): Reason[] {
  const chance = closeEnough ?? predicted.inWindow;
  const shots = input.shots.filter((shot) => shot.setting === from && shot.fault === null).length;
  if (chance >= 0.5) return [{ code: 'noLikelierMark', shots, chance }];
  const { min, max } = input.recipe.timeS;
  return [
    { code: 'noMarkHolds', window: { min, max }, nearest: from, timeS: predicted.timeS, chance },
    { code: 'lookElsewhere' },
  ];
}

/** Between two marks: what the dose takes up. */
function trimReasons({ predicted, here, doseG, action, from }: Decided): Reason[] {
  if (predicted.trimG === 0 || doseG === null || action === 'dose') return [];
  return [{ code: 'trim', setting: from, byG: predicted.trimG, before: here.inWindow, after: predicted.inWindow }];
}

/** What a house that trims by the yield or by the tamp does about a mark that lies between. */
function handTrimReasons(input: AdviceCase, fit: CaseFit, { predicted }: Decided): Reason[] {
  const trim = trimByHand(input, fit.line, predicted.timeS);
  if (trim === null) return [];
  if (trim.by === 'dose') return [{ code: 'trimByFeel', more: trim.more }];
  return [trim.by === 'yield' ? { code: 'trimByYield', toG: trim.toG } : { code: 'trimByTamp', offS: trim.offS }];
}

function repeatReasons(input: AdviceCase, fit: CaseFit, advice: Decided): Reason[] {
  const { judgement, predicted, purgeG, weighed, from } = advice;
  switch (judgement.kind) {
    case 'moved':
      return purgeG > 0 ? [{ code: 'purge', grams: purgeG, first: true }] : [];
    case 'notPurged':
      return [{ code: 'purgeAndRepeat', grams: purgeG }];
    case 'noEvidence':
      return [streamReason(input.shots.at(-1)) ?? { code: 'prepareWithCare' }];
    case 'noShot':
      return [];
    case 'choked':
    case 'doseOff':
    case 'sound': {
      if (judgement.kind === 'sound' && judgement.missS !== 0 && predicted.inWindow >= input.house.sureness)
        return [{ code: 'lastOutside' }];
      const counted = countedReason(input, fit, from);
      if (counted) return [counted];
      const move = weighed?.move ?? null;
      const costs =
        weighed && move && move.cost >= weighed.repeatCost
          ? { stay: weighed.repeatCost, move: move.cost, to: move.setting }
          : null;
      return [{ code: 'notSureYet', chance: predicted.inWindow, asked: input.house.sureness, costs }];
    }
  }
}

/** How far a house that counts good shots has come at a setting; null: it does not count, or has enough and is not content. */
function countedReason(input: AdviceCase, fit: CaseFit, from: number): Reason | null {
  const { lockRule } = input.house;
  if (lockRule === 'sureness') return null;
  const shots = soundShotsAt(input, fit, from);
  const inRow = shots.length - 1 - shots.findLastIndex(({ missS }) => missS !== 0);
  const counted = lockRule === 'meanOfThree' ? shots.length : inRow;
  return counted > 0 && counted < NEEDED[lockRule] ? { code: 'countsOn', counted, lockRule } : null;
}

/** What the stream showed, with its own next step. */
function streamReason(shot: CaseShot | undefined): Reason | null {
  const flaw = shot?.flaw;
  const says = flaw === 'ring' || flaw === 'oneSide' || flaw === 'jets' || flaw === 'paleEarly';
  return says ? { code: 'streamSaid', flaw } : null;
}

/** Whether this move turns back over ground that the last move covered. */
function overshot(input: AdviceCase, advice: Decided): boolean {
  const last = input.shots.at(-1);
  const before = input.shots.findLast((shot) => shot.setting !== last?.setting);
  if (!last || !before) return false;
  const lastMove = last.setting - before.setting;
  const nextMove = advice.setting - advice.from;
  return lastMove * nextMove < 0 && Math.abs(nextMove) < Math.abs(lastMove);
}
