import type { AdviceCase } from './adviceCase.ts';
import type { Advice, AdviceAction } from './advice.ts';
import { directionOf, marksFiner } from './dial.ts';
import { engineDefaults } from './engineDefaults.ts';
import { doseMissG, judgeLast, type Judgement } from './judgement.ts';
import { learn, type Learned } from './learn.ts';
import { bestSetting, expectAt, type Expected } from './move.ts';
import { nextCheckMin } from './nextCheck.ts';
import { reasonsFor } from './reasons.ts';
import { purgeAdviceG } from './retention.ts';

/** The action with its expected outcome, before words are found for it. */
interface Decision {
  action: AdviceAction;
  expected: Expected;
  purgeG: number;
}

/**
 * What to do after the shots of a case: judgement first, then dose, move, repeat or lock. Pure: the same case gives the
 * same advice. With no shots it says where to start.
 */
export function advise(input: AdviceCase): Advice {
  const lastSetting = input.shots.at(-1)?.setting;
  const from = input.standsAt ?? lastSetting ?? 0;
  const learned = learn(input, from);
  const judgement = judgeLast(input, learned.heard);
  const { action, expected, purgeG } = decide(input, learned, judgement, from);
  const advice: Omit<Advice, 'reasons'> = {
    action,
    from,
    setting: expected.setting,
    marks: Math.abs(marksFiner(input.dial, expected.setting, from)),
    direction: directionOf(input.dial, from, expected.setting),
    purgeG,
    doseG: action === 'dose' ? input.recipe.doseG : null,
    predicted: expected,
    here: expectAt(learned.model, input, learned.reference, from),
    nextCheckMin: nextCheckMin(expected, input.recipe, input.house.risk),
    judgement,
  };
  return { ...advice, reasons: reasonsFor(input, learned, advice) };
}

function decide(input: AdviceCase, learned: Learned, judgement: Judgement, from: number): Decision {
  const here = expectAt(learned.model, input, learned.reference, from);
  const fullPurgeG = purgeAdviceG(input.recipe.doseG, input.retentionG);
  const stay = (action: AdviceAction, purgeG = 0): Decision => ({ action, expected: here, purgeG });

  switch (judgement.kind) {
    case 'moved':
    case 'notPurged':
      return stay('repeat', Math.max(0, fullPurgeG - input.purgedG));
    case 'noEvidence':
      return stay('repeat');
    case 'noShot':
      // Only a collar that was moved since it last held may be put back on memory alone.
      if (input.held === null || input.held.setting === from) return stay('repeat');
      break;
    case 'doseOff':
      return stay('dose');
    case 'choked':
    case 'sound':
      break;
  }
  const best = bestSetting(learned.model, input, learned.reference, from);
  if (best.setting !== from && best.inWindow > here.inWindow + engineDefaults.moveMargin) {
    return { action: 'move', expected: best, purgeG: fullPurgeG };
  }
  return stay(mayLock(input, learned, here, from) ? 'lock' : 'repeat');
}

/** A lock wants the house's sureness, and at least one sound shot at this very setting with the dose in tolerance. */
function mayLock(input: AdviceCase, learned: Learned, here: Expected, from: number): boolean {
  const proven = input.shots.some(
    (shot, index) =>
      shot.setting === from &&
      shot.fault === null &&
      doseMissG(shot, input) === 0 &&
      (learned.heard[index]?.oldShare ?? 1) <= engineDefaults.oldShareNotPurged,
  );
  if (!proven) return false;
  return here.inWindow >= input.house.sureness || (here.sd <= engineDefaults.settledSd && here.inWindow > 0.5);
}
