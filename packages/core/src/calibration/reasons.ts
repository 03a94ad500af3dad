import type { AdviceCase } from './adviceCase.ts';
import type { Advice } from './advice.ts';
import type { Learned } from './learned.ts';
import { trimByHand } from './trim.ts';

const seconds = (s: number): string => `${s.toFixed(1)} s`;
/** A chance in whole percent; never "0 %" or "100 %", which nobody can know. */
const percent = (share: number): string =>
  share < 0.005 ? 'under 1 %' : share > 0.995 ? 'over 99 %' : `${Math.round(share * 100)} %`;
const grams = (g: number): string => `${g.toFixed(1)} g`;
const plural = (n: number, one: string): string => `${n} ${one}${n === 1 ? '' : 's'}`;

/** The reasons of an advice in the bar's words, made from its numbers; the most telling first. */
export function reasonsFor(input: AdviceCase, learned: Learned, advice: Omit<Advice, 'reasons'>): string[] {
  return [judgementReason(input, advice), ...actionReasons(input, learned, advice)].filter((reason) => reason !== '');
}

/** Coffee and time until the lock, told in shots. */
const worth = (cost: number): string => `${cost.toFixed(1)} shots' worth`;

function judgementReason(input: AdviceCase, advice: Omit<Advice, 'reasons'>): string {
  const { judgement } = advice;
  const { min, max } = input.recipe.timeS;
  switch (judgement.kind) {
    case 'noShot':
      if (input.held !== null && input.held.setting !== advice.from) {
        return `It last held at ${input.held.setting}; the collar was moved to ${advice.from} since, and no shot was pulled there.`;
      }
      return input.since === null
        ? 'No shot yet and this grinder has never held its window: start where the dial stands.'
        : 'No shot yet: start where the dial stands.';
    case 'moved':
      return `The collar was moved to ${judgement.to}: a shot there comes next.`;
    case 'notPurged':
      return `${percent(judgement.oldShare)} of that dose was ground at the old setting, so the shot says little about this one.`;
    case 'noEvidence':
      return judgement.fault === 'channel'
        ? 'The water found a channel: that time is no evidence about the grind.'
        : 'The puck was not sound: that time is no evidence about the grind.';
    case 'choked':
      return 'The shot choked: it is far too fine, though nobody knows by how much.';
    case 'doseOff':
      return `The dose was ${grams(Math.abs(judgement.byG))} ${judgement.byG > 0 ? 'over' : 'under'}: put the dose right before the collar.`;
    case 'sound':
      if (judgement.missS === 0)
        return `At the recipe's dose and yield it ran ${seconds(judgement.normalisedS)}: inside ${min}-${max} s.`;
      return `At the recipe's dose and yield it ran ${seconds(judgement.normalisedS)}: ${seconds(Math.abs(judgement.missS))} too ${judgement.missS < 0 ? 'fast' : 'slow'}.`;
  }
}

function actionReasons(input: AdviceCase, learned: Learned, advice: Omit<Advice, 'reasons'>): string[] {
  switch (advice.action) {
    case 'dose':
      return [`Weigh ${grams(advice.doseG ?? input.recipe.doseG)} and pull again; the collar stays at ${advice.from}.`];
    case 'move':
      return moveReasons(input, learned, advice);
    case 'lock':
      return [...lockReasons(input, advice), ...trimReasons(advice), ...handTrimReasons(input, learned, advice)];
    case 'repeat':
      return [...repeatReasons(input, advice), ...trimReasons(advice)];
  }
}

function moveReasons(input: AdviceCase, learned: Learned, advice: Omit<Advice, 'reasons'>): string[] {
  const perMark = learned.line.response;
  const sd = Math.sqrt(learned.line.responseVariance);
  const { predicted, here } = advice;
  const reasons = [
    `At ${advice.from} it is ${percent(here.inWindow)} likely to hold the window, at ${advice.setting} it is ${percent(predicted.inWindow)}.`,
    `A mark is worth about ${seconds(perMark * predicted.timeS)} here, give or take ${seconds(sd * predicted.timeS)}.`,
  ];
  if (overshot(input, advice)) reasons.push('The last move went too far: go back part of the way.');
  if (advice.purgeG > 0) {
    reasons.push(`Purge ${grams(advice.purgeG)}, or the next shot is a blend of two settings.`);
  }
  return reasons;
}

function lockReasons(input: AdviceCase, advice: Omit<Advice, 'reasons'>): string[] {
  const here = input.shots.filter((shot) => shot.setting === advice.from && shot.fault === null).length;
  if (input.house.lockRule !== 'sureness') {
    return [`${plural(here, 'sound shot')} at ${advice.from}: enough by the house's rule.`];
  }
  if (advice.predicted.inWindow < 0.5) {
    return [
      `No mark of this dial holds ${input.recipe.timeS.min}-${input.recipe.timeS.max} s: ${advice.from} comes nearest, at about ${seconds(advice.predicted.timeS)} (${percent(advice.predicted.inWindow)}).`,
      'Look at the dose, the basket and the age of the coffee before turning further.',
    ];
  }
  if (advice.predicted.inWindow < input.house.sureness) {
    return [
      `${plural(here, 'shot')} here: no other mark is likelier to hold, and more shots would not change that (${percent(advice.predicted.inWindow)}).`,
    ];
  }
  return [
    `${plural(here, 'sound shot')} at ${advice.from}: ${percent(advice.predicted.inWindow)} sure that it holds the window.`,
  ];
}

/** Between two marks: what the dose takes up. */
function trimReasons({ predicted, here, doseG, action, from }: Omit<Advice, 'reasons'>): string[] {
  if (predicted.trimG === 0 || doseG === null || action === 'dose') return [];
  const way = predicted.trimG > 0 ? 'more' : 'less';
  return [
    `${from} lies between: ${grams(Math.abs(predicted.trimG))} ${way} coffee brings the chance from ${percent(here.inWindow)} to ${percent(predicted.inWindow)}, without a purge.`,
  ];
}

/** What a house that trims by the yield or by the tamp does about a mark that lies between. */
function handTrimReasons(input: AdviceCase, learned: Learned, { predicted }: Omit<Advice, 'reasons'>): string[] {
  const trim = trimByHand(input, learned.line, predicted.timeS);
  if (trim === null) return [];
  if (trim.by === 'yield') {
    return [`Between two marks the house trims the yield: stop for ${grams(trim.toG)} in the cup.`];
  }
  const way = trim.offS > 0 ? 'firmer' : 'lighter';
  return [
    `Between two marks the house trims by the tamp: a touch ${way}, worth ${seconds(Math.abs(trim.offS))} here. That is a person's doing, not the grinder's.`,
  ];
}

function repeatReasons(input: AdviceCase, advice: Omit<Advice, 'reasons'>): string[] {
  const { judgement, predicted } = advice;
  if (judgement.kind === 'moved') {
    return advice.purgeG > 0 ? [`Purge ${grams(advice.purgeG)} first, or the shot is a blend of two settings.`] : [];
  }
  if (judgement.kind === 'notPurged') return [`Purge ${grams(advice.purgeG)} and pull again at the same setting.`];
  if (judgement.kind === 'noEvidence') return ['Prepare the puck with care and pull again at the same setting.'];
  if (judgement.kind === 'noShot') return [];
  const sure = `${percent(predicted.inWindow)} sure so far, the house asks ${percent(input.house.sureness)}`;
  const { weighed } = advice;
  if (!weighed?.move || weighed.move.cost < weighed.repeatCost) {
    return [`${sure}: one more shot here tells more than a move.`];
  }
  return [
    `${sure}: from here it takes about ${worth(weighed.repeatCost)}, after a move to ${weighed.move.setting} about ${worth(weighed.move.cost)}.`,
  ];
}

/** Whether this move turns back over ground that the last move covered. */
function overshot(input: AdviceCase, advice: Omit<Advice, 'reasons'>): boolean {
  const last = input.shots.at(-1);
  const before = input.shots.findLast((shot) => shot.setting !== last?.setting);
  if (!last || !before) return false;
  const lastMove = last.setting - before.setting;
  const nextMove = advice.setting - advice.from;
  return lastMove * nextMove < 0 && Math.abs(nextMove) < Math.abs(lastMove);
}
