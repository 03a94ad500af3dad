import { lnOfTrim, marksFiner, mostStepsOf, settingAt, type AdviceCase, type Expected } from '../calibration/index.ts';
import { chanceBetween, MINUTES_PER_HOUR, MS_PER_HOUR, Z_80 } from '../numbers/index.ts';
import { dayNumbers } from './dayNumbers.ts';
import type { LevelBank } from './levelBank.ts';

/** What is known of the rest of the day. */
export interface Service {
  endsAtMs: number;
  cupsPerHour: number;
  /** What a look is worth, cups outside; absent: the usual. */
  checkCups?: number;
}

const STEP_MIN = 5;

export interface Day {
  input: AdviceCase;
  bank: LevelBank;
  service: Service;
  /** d ln T / d ln dose. */
  doseExponent: number;
}

/** Where the collar stands, and how far from the recipe's the dose is trimmed. */
export interface Place {
  setting: number;
  trimG: number;
}

const lnDoseOf = ({ input, doseExponent }: Day, { trimG }: Place): number =>
  doseExponent * lnOfTrim(input.recipe, trimG);

/** Chance that a setting's mean lies outside the window after so many hours, over all that may be believed of its wandering. */
export function outsideAt(day: Day, place: Place, hours: number): number {
  const { input, bank } = day;
  const lnDose = lnDoseOf(day, place);
  const x = marksFiner(input.dial, place.setting, bank.reference);
  const { min, max } = input.recipe.timeS;
  const [low, high] = [Math.log(min), Math.log(max)];
  return bank.models.reduce((sum, model) => {
    const { mean, variance } = bank.expectedAt(model, x, hours);
    return sum + model.weight * (1 - chanceBetween(mean + lnDose, Math.sqrt(variance), low, high));
  }, 0);
}

export interface Outlook {
  place: Place;
  /** Cups outside until the next look, and the move, an hour. */
  cost: number;
  checkMin: number;
}

/**
 * What a setting costs an hour, and when to look again: as soon as what a look could mend, by the best mark after it, is worth the
 * look. Where no mark could do better, looking again mends nothing.
 */
export function outlook(day: Day, place: Place, stands: Place): Outlook {
  const { input, service } = day;
  const { checkCups = dayNumbers.checkCups } = service;
  const moved = place.setting === stands.setting ? 0 : dayNumbers.moveCups;
  const trimmed = place.trimG === stands.trimG ? 0 : dayNumbers.trimCups;
  const longestMin = Math.max(input.house.longestCheckMin, dayNumbers.soonestCheckMin);
  let cupsOut = 0;
  let before = outsideAt(day, place, 0);
  let checkMin = longestMin;
  for (let minutes = STEP_MIN; minutes <= longestMin; minutes += STEP_MIN) {
    const hours = minutes / MINUTES_PER_HOUR;
    const outside = outsideAt(day, place, hours);
    cupsOut += (((before + outside) / 2) * service.cupsPerHour * STEP_MIN) / MINUTES_PER_HOUR;
    before = outside;
    // A look saves no cups but those that would be outside.
    if (outside * dayNumbers.lookHelpsHours[1] * service.cupsPerHour < checkCups) continue;
    if (savedByLook(day, place, hours).cups < checkCups) continue;
    checkMin = minutes;
    break;
  }
  // By the end of the day nobody has anything of a move.
  const lastsHours = Math.min(
    dayNumbers.moveLastsHours,
    Math.max(STEP_MIN / MINUTES_PER_HOUR, hoursLeft(input.nowMs, service)),
  );
  const cost = (cupsOut / checkMin) * MINUTES_PER_HOUR + (moved + trimmed) / lastsHours;
  return { place, cost, checkMin: Math.max(dayNumbers.soonestCheckMin, checkMin) };
}

/** Five-point Gauss-Hermite rule for the standard normal (Abramowitz and Stegun 25.4.46). */
const NODES = [-2.856970013872806, -1.3556261799742657, 0, 1.3556261799742657, 2.856970013872806];
const WEIGHTS = [
  0.011257411327720682, 0.22207592200561263, 0.5333333333333333, 0.22207592200561263, 0.011257411327720682,
];

/** A look mends what it takes this share of the chance outside from. */
const MENDS = 0.5;

/** Whether a look now, and the best mark after it, would take most of the chance outside away: what is unknown it mends, what is coarse it does not. */
export const doesLookMend = (day: Day, place: Place): boolean =>
  savedByLook(day, place, 0).share > MENDS * outsideAt(day, place, 0);

/**
 * What a look so many hours on is expected to save, by the best mark after it: the share of cups then, and cups in all; what it
 * tells holds until the grinder has wandered as far as the look leaves it unknown, or until the end of the day.
 */
function savedByLook(day: Day, place: Place, hours: number): { share: number; cups: number } {
  const { input, bank, service } = day;
  const lnDose = lnDoseOf(day, place);
  const x = marksFiner(input.dial, place.setting, bank.reference);
  const { min, max } = input.recipe.timeS;
  const [low, high] = [Math.log(min), Math.log(max)];
  const steps = [-2, -1, 0, 1, 2];
  const untilEnd = Math.max(0, hoursLeft(input.nowMs, service) - hours);
  const saved = { share: 0, cups: 0 };
  for (const model of bank.models) {
    const { mean, variance } = bank.expectedAt(model, x, hours);
    const told = variance / Math.sqrt(variance + bank.shotVariance);
    const left = (variance * bank.shotVariance) / (variance + bank.shotVariance);
    const without = 1 - chanceBetween(mean + lnDose, Math.sqrt(variance), low, high);
    const after = NODES.reduce((total, node, i) => {
      const at = mean + lnDose + told * node;
      const best = Math.max(
        ...steps.map((step) =>
          chanceBetween(at + step * input.dial.stepMarks * model.response, Math.sqrt(left), low, high),
        ),
      );
      return total + (WEIGHTS[i] ?? 0) * (1 - best);
    }, 0);
    const [least, most] = dayNumbers.lookHelpsHours;
    const holds = Math.min(Math.max(least, left / model.wandering.walkSd ** 2), most, untilEnd);
    const share = model.weight * (without - after);
    saved.share += share;
    saved.cups += share * holds * service.cupsPerHour;
  }
  return saved;
}

/** Hours until the end of the day; without a clock, as many as a look helps. */
const hoursLeft = (nowMs: number | null, { endsAtMs }: Service): number =>
  nowMs === null ? dayNumbers.lookHelpsHours[1] : Math.max(0, endsAtMs - nowMs) / MS_PER_HOUR;

/** Cups until the end of the day. */
export const cupsToCome = ({ input, service }: Day): number => hoursLeft(input.nowMs, service) * service.cupsPerHour;

/** The mark nearest the middle, and those beside it, as far as the dial and the house let turn. */
export function settingsInReach(day: Day, stands: Place): number[] {
  const { input, bank } = day;
  const { setting: from } = stands;
  const lnDose = lnDoseOf(day, stands);
  const { dial, recipe } = input;
  const middle = (Math.log(recipe.timeS.min) + Math.log(recipe.timeS.max)) / 2;
  const x = marksFiner(dial, from, bank.reference);
  const at = bank.models.reduce((sum, model) => sum + model.weight * (bank.expectedAt(model, x).mean + lnDose), 0);
  const response = bank.models.reduce((sum, model) => sum + model.weight * model.response, 0);
  const most = Math.min(mostStepsOf(dial), Math.round(dayNumbers.mostMarks / dial.stepMarks));
  const wanted = Math.round((middle - at) / response / dial.stepMarks);
  const centre = Math.max(-most, Math.min(most, wanted));
  return [centre - 1, centre, centre + 1]
    .filter((steps) => Math.abs(steps) <= most && steps !== 0 && steps * centre >= 0)
    .map((steps) => settingAt(dial, steps * dial.stepMarks, from))
    .filter((setting) => dial.range == null || (setting >= dial.range.min && setting <= dial.range.max));
}

/** What a place is expected to run at, so many hours from now. */
export function expectedOf(day: Day, place: Place, hours = 0): Expected {
  const { input, bank } = day;
  const { setting, trimG } = place;
  const lnDose = lnDoseOf(day, place);
  const x = marksFiner(input.dial, setting, bank.reference);
  const parts = bank.models.map((model) => ({ weight: model.weight, ...bank.expectedAt(model, x, hours) }));
  const mean = parts.reduce((sum, part) => sum + part.weight * part.mean, 0);
  const variance = parts.reduce((sum, part) => sum + part.weight * (part.variance + (part.mean - mean) ** 2), 0);
  const reach = Z_80 * Math.sqrt(variance + bank.shotVariance);
  return {
    setting,
    trimG,
    timeS: Math.exp(mean + lnDose),
    lowS: Math.exp(mean + lnDose - reach),
    highS: Math.exp(mean + lnDose + reach),
    inWindow: 1 - outsideAt(day, place, hours),
    sd: Math.sqrt(variance),
  };
}
