import type { AdviceCase } from './adviceCase.ts';
import type { Advice, AdviceAction, Weighed } from './advice.ts';
import { directionOf, marksFiner } from './dial.ts';
import { engineDefaults } from './engineDefaults.ts';
import { judgeLast, type Judgement } from './judgement.ts';
import { fitCase } from './fitCase.ts';
import type { CaseFit } from './caseFit.ts';
import { lockVerdict } from './lockRule.ts';
import { expectedCosts, type ExpectedCost } from './lookahead.ts';
import { bestSetting, bestTrim, expectAt, type Expected } from './move.ts';
import { nextCheckMin } from './nextCheck.ts';
import { reasonsFor } from './reasons.ts';
import { purgeAdviceG } from './retention.ts';
import { windowMiddleS } from './windowMiddle.ts';

/** The action with its expected outcome, before words are found for it. */
interface Decision {
  action: AdviceAction;
  expected: Expected;
  purgeG: number;
  /** No mark of the dial is likely to do it; this is the best there is. */
  beyondDial: boolean;
  weighed: Weighed | null;
}

/**
 * What to do after the shots of a case: judgement first, then dose, move, repeat or lock. Pure: the same case gives the
 * same advice. With no shots it says where to start.
 */
export function advise(input: AdviceCase): Advice {
  const from = input.standsAt ?? input.shots.at(-1)?.setting ?? 0;
  const fit = fitCase(input, from);
  const judgement = judgeLast(input, fit);
  const { action, expected, purgeG, beyondDial, weighed } = decide(input, fit, judgement, from);
  const advice: Omit<Advice, 'reasons'> = {
    action,
    from,
    setting: expected.setting,
    marks: Math.abs(marksFiner(input.dial, expected.setting, from)),
    direction: directionOf(input.dial, from, expected.setting),
    purgeG,
    doseG: doseToWeighG(input, action, expected),
    predicted: expected,
    here: expectAt(fit, input, from),
    nextCheckMin: nextCheckMin(expected, input),
    judgement,
    beyondDial,
    weighed,
    fit,
  };
  return { ...advice, reasons: reasonsFor(input, fit, advice) };
}

/** The dose to weigh from now on, when it is not simply the recipe's; after a dose that was off it is always named. */
function doseToWeighG({ recipe }: AdviceCase, action: AdviceAction, { trimG }: Expected): number | null {
  if (trimG === 0 && action !== 'dose') return null;
  return Math.round((recipe.doseG + trimG) * 100) / 100;
}

function decide(input: AdviceCase, fit: CaseFit, judgement: Judgement, from: number): Decision {
  const fullPurgeG = purgeAdviceG(input.recipe.doseG, input.retentionG);
  const here = bestTrim(fit, input, from);

  switch (judgement.kind) {
    case 'moved':
    case 'notPurged': {
      // Nothing was seen of this setting yet, so there is nothing to trim.
      const expected = expectAt(fit, input, from);
      return {
        action: 'repeat',
        expected,
        purgeG: Math.max(0, fullPurgeG - input.purgedG),
        beyondDial: false,
        weighed: null,
      };
    }
    case 'noEvidence':
      return { action: 'repeat', expected: here, purgeG: 0, beyondDial: false, weighed: null };
    case 'noShot':
      return beforeAnyShot(input, fit, from, fullPurgeG);
    case 'doseOff': {
      const expected = expectAt(fit, input, from, judgement.doseG - input.recipe.doseG);
      return { action: 'dose', expected, purgeG: 0, beyondDial: false, weighed: null };
    }
    case 'choked':
    case 'sound':
      return moveOrStay(input, fit, here, fullPurgeG);
  }
}

/** Only a collar that was moved since it last held may be put back on memory alone; else a shot comes first. */
function beforeAnyShot(input: AdviceCase, fit: CaseFit, from: number, fullPurgeG: number): Decision {
  const here = expectAt(fit, input, from, input.trimG);
  const back = input.held === null ? here : expectAt(fit, input, input.held.setting);
  const best = back.setting === from ? here : bestSetting(fit, input, from);
  // Back to where it held, unless another mark is clearly likelier by now.
  const target = best.inWindow > back.inWindow + engineDefaults.backMargin ? best : back;
  const putBack = target.setting !== from && target.inWindow > here.inWindow + engineDefaults.moveMargin;
  return putBack
    ? { action: 'move', expected: target, purgeG: fullPurgeG, beyondDial: false, weighed: null }
    : { action: 'repeat', expected: here, purgeG: 0, beyondDial: false, weighed: null };
}

/** The collar's question: lock, repeat, or move, whichever is expected to bring the station home cheapest. */
function moveOrStay(input: AdviceCase, fit: CaseFit, here: Expected, fullPurgeG: number): Decision {
  const best = bestSetting(fit, input, here.setting);
  const gains = (other: Expected): boolean => other.inWindow > here.inWindow + engineDefaults.moveMargin;
  const hopeless = here.inWindow < engineDefaults.hopeless;
  const better = gains(best) || (hopeless && isNearer(best, here, input));
  const verdict = lockVerdict(input, fit.heard, here, !better);
  if (verdict.lock) {
    return { action: 'lock', expected: here, purgeG: 0, beyondDial: verdict.settled, weighed: null };
  }
  const weighed = weigh(input, fit, here.setting);
  const repeat: Decision = { action: 'repeat', expected: here, purgeG: 0, beyondDial: false, weighed };
  const move = (target: Expected): Decision => ({
    action: 'move',
    expected: target,
    purgeG: fullPurgeG,
    beyondDial: false,
    weighed,
  });
  // Houses that count good shots go where the next one is likeliest to be good.
  if (weighed === null) return gains(best) ? move(best) : repeat;
  const cheaper = weighed.move !== null && weighed.move.cost < weighed.repeatCost;
  const target = weighed.move && cheaper ? expectAt(fit, input, weighed.move.setting) : null;
  if (target && gains(target)) return move(target);
  return hopeless && better ? move(best) : repeat;
}

/** What a repeat and the cheapest move are expected to cost until the lock; null where the house counts good shots. */
function weigh(input: AdviceCase, fit: CaseFit, from: number): Weighed | null {
  if (input.house.lockRule !== 'sureness') return null;
  const [repeat, ...moves] = expectedCosts(fit, input, from);
  if (!repeat) return null;
  const move = moves.reduce<ExpectedCost | null>((least, one) => (least && least.cost <= one.cost ? least : one), null);
  return { repeatCost: repeat.cost, move };
}

/** Whether a setting lies nearer to the window's middle by more than noise. */
function isNearer(other: Expected, here: Expected, { recipe }: AdviceCase): boolean {
  const off = ({ timeS }: Expected): number => Math.abs(Math.log(timeS / windowMiddleS(recipe.timeS)));
  return off(other) < off(here) - engineDefaults.moveMargin;
}
