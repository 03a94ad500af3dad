import { lastLock, rateWanders, type RecipeTarget } from '../calibration/index.ts';
import { factsAfter, ofGrinder, type StandingFact, type StandingFacts } from '../facts/index.ts';
import type { ServicePolicy } from '../house/index.ts';
import { chanceBetween, MINUTES_PER_HOUR, MS_PER_MINUTE, usual } from '../numbers/index.ts';
import { dayNumbers } from './dayNumbers.ts';

/** What a house says of weighing doses in service. */
export interface DoseRule extends Pick<ServicePolicy, 'dosing' | 'doseCheck'> {
  /** Chance of a dose outside its tolerance at which one is weighed, 0..1. */
  risk: number;
  longestCheckMin: number;
}

const QUARTER_HOUR_MIN = 15;
const TWENTY_DRINKS = 20;

/** Whether a dose was weighed, or the timer set anew. */
const tellsOfDose = (fact: StandingFact, grinderId: string): boolean => {
  if (fact.kind === 'dose') return fact.grinderId === grinderId && (fact.body.way ?? 'scale') === 'scale';
  if (fact.kind !== 'step') return false;
  const { body } = fact;
  if (body.step !== 'doseTime' && body.step !== 'doseSet') return false;
  return body.grinderId === grinderId && (body.step === 'doseSet' || body.dosesG.length > 0);
};

/** Whether it may have changed what the timer gives: another weight of beans, another bag. */
const changesDose = (fact: StandingFact, grinderId: string): boolean =>
  (fact.kind === 'newBag' && fact.grinderId === grinderId) ||
  (fact.kind === 'step' &&
    fact.body.step === 'happened' &&
    (fact.body.what === 'refill' || fact.body.what === 'cleaned') &&
    fact.body.grinderId === grinderId);

/**
 * When the dose of a grinder that holds is next weighed, ms since the epoch: by the house's rule, or as soon as the chance that
 * its mean lies outside the tolerance reaches the house's risk. Null: it was never locked, or every dose is weighed anyway.
 */
export function doseDueInService(
  facts: StandingFacts,
  grinderId: string,
  recipe: Pick<RecipeTarget, 'doseG' | 'doseToleranceG'>,
  house: DoseRule,
  cupsPerHour: number,
): number | null {
  const lock = lastLock(ofGrinder(facts, grinderId));
  if (!lock || house.dosing !== 'timed' || house.doseCheck === 'never') return null;
  const since = factsAfter(facts, lock);
  const weighed = since.findLast((fact) => tellsOfDose(fact, grinderId)) ?? lock;
  const changes = factsAfter(facts, weighed).filter((fact) => changesDose(fact, grinderId)).length;
  return Date.parse(weighed.at) + minutesOf(recipe, house, changes, cupsPerHour) * MS_PER_MINUTE;
}

function minutesOf(
  { doseG, doseToleranceG }: Pick<RecipeTarget, 'doseG' | 'doseToleranceG'>,
  { doseCheck, risk, longestCheckMin }: DoseRule,
  changes: number,
  cupsPerHour: number,
): number {
  if (doseCheck === 'quarterHour') return QUARTER_HOUR_MIN;
  if (doseCheck === 'twentyDrinks') return (TWENTY_DRINKS / cupsPerHour) * MINUTES_PER_HOUR;
  const within = (doseToleranceG ?? usual.doseToleranceG) / doseG;
  const { doseSetSd, doseChangeSd, soonestCheckMin } = dayNumbers;
  const outsideAfter = (minutes: number): number => {
    const walked = rateWanders(minutes / MINUTES_PER_HOUR);
    return 1 - chanceBetween(0, Math.sqrt(doseSetSd ** 2 + changes * doseChangeSd ** 2 + walked), -within, within);
  };
  let minutes: number = soonestCheckMin;
  while (minutes < longestCheckMin && outsideAfter(minutes) < risk) minutes += 1;
  return minutes;
}
