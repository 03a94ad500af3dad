import type { Reason } from '@tempera/core/calibration';
import type { Texture } from '@tempera/core/facts';

/** How a reader is told numbers: in their units. */
export interface Writer {
  grams: (g: number) => string;
  seconds: (s: number) => string;
  /** A chance in whole percent; never 0 or 100, which nobody can know. */
  percent: (share: number) => string;
  /** A dial number without trailing zeros. */
  dial: (setting: number) => string;
}

/** A chance in whole percent; never "0 %" or "100 %", which nobody can know. */
export const percentWord = (share: number): string =>
  share < 0.005 ? 'under 1 %' : share > 0.995 ? 'over 99 %' : `${Math.round(share * 100)} %`;

/** A dial number without trailing zeros. */
export const dialWord = (setting: number): string => String(Math.round(setting * 1000) / 1000);

/** Grams and seconds, as everything is kept. */
export const plainWriter: Writer = {
  grams: (g) => `${g.toFixed(1)} g`,
  seconds: (s) => `${s.toFixed(1)} s`,
  percent: percentWord,
  dial: dialWord,
};

const plural = (n: number, one: string): string => `${n} ${one}${n === 1 ? '' : 's'}`;
/** Coffee and time until the lock, told in shots. */
const worth = (cost: number): string => `${cost.toFixed(1)} shots' worth`;

/** What grounds feel like. */
export const textureWord: Record<Texture, string> = {
  powder: 'icing sugar',
  flour: 'flour',
  fineSalt: 'fine salt',
  salt: 'table salt',
  sand: 'coarse sand',
};

const streamWord: Record<Extract<Reason, { code: 'streamSaid' }>['flaw'], string> = {
  ring: 'Water ran along the edge around a dry middle: spread the grounds to the middle, see that the tamper fits the basket, and pull again.',
  oneSide: 'One side ran first: that tamp was slanted. Level it, and pull again at the same setting.',
  jets: 'Fine jets are channels: break up the clumps, spread them evenly, and pull again at the same setting.',
  paleEarly: 'It turned pale too soon, so part of the bed did all of the work: spread it evenly, and pull again.',
};

const ruleWord: Record<Extract<Reason, { code: 'countsOn' }>['lockRule'], string> = {
  firstGood: 'the first good shot',
  oneRepeat: 'two good shots in a row',
  meanOfThree: 'the mean of three shots',
};

type Words = { [C in Reason['code']]: (reason: Extract<Reason, { code: C }>, say: Writer) => string };

const words: Words = {
  movedUnseen: ({ heldAt, standsAt }, { dial }) =>
    `It last held at ${dial(heldAt)}; the collar was moved to ${dial(standsAt)} since, and no shot was pulled there.`,
  neverHeld: () => 'No shot yet and this grinder has never held its window: start where the dial stands.',
  noShotYet: () => 'No shot yet: start where the dial stands.',
  untried: () => 'Taste changed what is poured here: one shot shows how it runs before anything is turned.',
  moved: ({ to }, { dial }) => `The collar was moved to ${dial(to)}: a shot there comes next.`,
  blend: ({ oldShare }, { percent }) =>
    `${percent(oldShare)} of that dose was ground at the old setting, so the shot says little about this one.`,
  noEvidence: ({ fault }) =>
    fault === 'channel'
      ? 'The water found a channel: that time is no evidence about the grind.'
      : 'The puck was not sound: that time is no evidence about the grind.',
  choked: () => 'The shot choked: it is far too fine, though nobody knows by how much.',
  doseOff: ({ byG }, { grams }) =>
    `The dose was ${grams(Math.abs(byG))} ${byG > 0 ? 'over' : 'under'}: put the dose right before the collar.`,
  ran: ({ normalisedS, missS, window }, { seconds }) =>
    `At the recipe's dose and yield it ran ${seconds(normalisedS)}: ${
      missS === 0
        ? `inside ${window.min}-${window.max} s`
        : `${seconds(Math.abs(missS))} too ${missS < 0 ? 'fast' : 'slow'}`
    }.`,
  weighDose: ({ doseG, setting }, { grams, dial }) =>
    `Weigh ${grams(doseG)} and pull again; the collar stays at ${dial(setting)}.`,
  chances: ({ from, here, setting, there }, { percent, dial }) =>
    `At ${dial(from)} it is ${percent(here)} likely to hold the window, at ${dial(setting)} it is ${percent(there)}.`,
  markWorth: ({ seconds: worthS, sdS }, { seconds }) =>
    `A mark is worth about ${seconds(worthS)} here, give or take ${seconds(sdS)}.`,
  farOut: ({ slow }) =>
    `That is far too ${slow ? 'slow' : 'fast'} for noise: another shot here would tell nothing new.`,
  addsUp: ({ shots, slow }) =>
    `${plural(shots, 'shot')} here, and the last three are all too ${slow ? 'slow' : 'fast'}: that is no chance any more.`,
  endOfDial: ({ setting }, { dial }) =>
    `The dial ends before the mark that would do; it stands at ${dial(setting)}. Look at the coffee's age, the basket and the burrs.`,
  noAnswer: () =>
    "It gushes whatever the setting: two turns changed next to nothing. Look at the coffee's age, the basket and the burrs before the collar is chased.",
  besides: ({ what }) =>
    what === 'bagPast'
      ? 'The bag is past its window, and old coffee runs fast whatever the grind: another bag before the collar is chased.'
      : "It ran through another basket than the recipe's: the right one first, before the collar is chased.",
  firstDrop: ({ firstDropS, missS }, { seconds }) =>
    `The first drop fell at ${seconds(firstDropS)}, ${seconds(Math.abs(missS))} too ${missS < 0 ? 'early: look at the puck and the tamp' : 'late: look at the pump, the screen and the dose'}.`,
  basketTakes: ({ doseG, minG, maxG }, { grams }) =>
    `${grams(doseG)} lies outside what this basket is made for, ${grams(minG)} to ${grams(maxG)}.`,
  lastOutside: () =>
    'The last shot lies outside the window: nobody signs for that one, however sure it was before. Pull one more.',
  overshot: () => 'The last move went too far: go back part of the way.',
  purge: ({ grams: purgeG, first }, { grams }) =>
    first
      ? `Purge ${grams(purgeG)} first, or the shot is a blend of two settings.`
      : `Purge ${grams(purgeG)}, or the next shot is a blend of two settings.`,
  purgeAndRepeat: ({ grams: purgeG }, { grams }) => `Purge ${grams(purgeG)} and pull again at the same setting.`,
  prepareWithCare: () => 'Prepare the puck with care and pull again at the same setting.',
  houseCounts: ({ shots, setting }, { dial }) =>
    `${plural(shots, 'sound shot')} at ${dial(setting)}: enough by the house's rule.`,
  noMarkHolds: ({ window, nearest, timeS, chance }, { seconds, percent, dial }) =>
    `No mark of this dial holds ${window.min}-${window.max} s: ${dial(nearest)} comes nearest, at about ${seconds(timeS)} (${percent(chance)}).`,
  lookElsewhere: () => 'Look at the dose, the basket and the age of the coffee before turning further.',
  noLikelierMark: ({ shots, chance }, { percent }) =>
    `${plural(shots, 'shot')} here: no other mark is likelier to hold, and more shots would not change that (${percent(chance)}).`,
  sureEnough: ({ shots, setting, chance }, { percent, dial }) =>
    `${plural(shots, 'sound shot')} at ${dial(setting)}: ${percent(chance)} sure that it holds the window.`,
  trim: ({ setting, byG, before, after }, { grams, percent, dial }) =>
    `${dial(setting)} lies between: ${grams(Math.abs(byG))} ${byG > 0 ? 'more' : 'less'} coffee brings the chance from ${percent(before)} to ${percent(after)}, without a purge.`,
  trimByYield: ({ toG }, { grams }) =>
    `Between two marks the house trims the yield: stop for ${grams(toG)} in the cup.`,
  trimByTamp: ({ offS }, { seconds }) =>
    `Between two marks the house trims by the tamp: a touch ${offS > 0 ? 'firmer' : 'lighter'}, worth ${seconds(Math.abs(offS))} here. That is a person's doing, not the grinder's.`,
  trimByFeel: ({ more }) =>
    `It lies between two marks: a touch ${more ? 'more' : 'less'} coffee, as far as the hand can tell, or leave it.`,
  felt: ({ texture, setting }, { dial }) =>
    `At ${dial(setting)} the grounds feel like ${textureWord[texture]}. Fingers are a wide hint: the first shot decides.`,
  startsAt: ({ setting }, { dial }) =>
    `Nobody has dialled this grinder in: the house begins at ${dial(setting)}, and the first shot tells the way.`,
  streamSaid: ({ flaw }) => streamWord[flaw],
  countsOn: ({ counted, lockRule }) => `The house goes by ${ruleWord[lockRule]}: ${counted} so far, another one next.`,
  notSureYet: ({ chance, asked, costs }, { percent, dial }) => {
    const sure = `${percent(chance)} sure so far, the house asks ${percent(asked)}`;
    if (costs === null) return `${sure}: one more shot here before it is left.`;
    return `${sure}: from here it takes about ${worth(costs.stay)}, after a move to ${dial(costs.to)} about ${worth(costs.move)}.`;
  },
};

/** A reason of the engine in the bar's words, in the reader's units. */
export const reasonWord = (reason: Reason, say: Writer): string =>
  (words[reason.code] as (of: Reason, by: Writer) => string)(reason, say);
