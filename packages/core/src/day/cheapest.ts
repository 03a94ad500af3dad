import {
  isPredictedIn,
  middleThirdLn,
  offMiddle,
  trimDoses,
  weighableTrims,
  windowMiddleS,
  type CaseFit,
} from '../calibration/index.ts';
import { dayNumbers } from './dayNumbers.ts';
import { doTwoAgree, isAgainstLast } from './lastPoured.ts';
import { expectedOf, outlook, outsideAt, settingsInReach, type Day, type Outlook, type Place } from './outlook.ts';

/** What costs least of all that good sense allows, staying included. */
export function cheapest(day: Day, fit: CaseFit, here: Outlook): Outlook {
  const { input } = day;
  const stands = here.place;
  // A house that answers a small miss with the dose goes along with a coffee that ages so: the collar stays, and no purge is due.
  const doseFirst = input.house.smallMiss === 'dose';
  const mayTrim = doseFirst || (isBetweenMarks(day, stands) && doTwoAgree(input, fit));
  const trims = doseFirst ? weighableTrims(input) : trimDoses(input, fit.line);
  return placesInReach(day, stands, mayTrim ? trims : [])
    .filter((place) => isWorthATurn(day, place, stands) && !isAgainstLast(day, fit, place, stands))
    .map((place) => outlook(day, place, stands))
    .reduce((least, one) => (one.cost < least.cost ? one : least), here);
}

/** Another dose where the collar stands, or other marks at the dose that is poured or the recipe's: one thing is changed at a time. */
function placesInReach(day: Day, stands: Place, trims: readonly number[]): Place[] {
  const known = [stands.trimG, 0];
  return [
    ...[...known, ...trims].map((trimG) => ({ ...stands, trimG })),
    ...settingsInReach(day, stands).flatMap((setting) => known.map((trimG) => ({ setting, trimG }))),
  ];
}

/** Nobody turns from one miss to another, nor away from the middle for what holds no better. */
function isWorthATurn(day: Day, place: Place, stands: Place): boolean {
  const [there, here] = [expectedOf(day, place), expectedOf(day, stands)];
  if (offMiddle(there, day.input) < offMiddle(here, day.input)) return true;
  const gain = (hours: number): number => outsideAt(day, stands, hours) - outsideAt(day, place, hours);
  return isPredictedIn(there, day.input) && Math.max(gain(0), gain(1)) > dayNumbers.turnMargin;
}

/** What is off by less than so many sds is noise. */
const TRIM_SDS = 1;

/** Whether no mark comes near the middle, by more than noise: then the dose may take up the rest, and only then. */
function isBetweenMarks(day: Day, stands: Place): boolean {
  const half = middleThirdLn(day.input);
  const middle = Math.log(windowMiddleS(day.input.recipe.timeS));
  return [stands.setting, ...settingsInReach(day, { ...stands, trimG: 0 })].every((setting) => {
    const { timeS, sd } = expectedOf(day, { setting, trimG: 0 });
    const off = Math.abs(Math.log(timeS) - middle);
    return off > half && (setting !== stands.setting || off > TRIM_SDS * sd);
  });
}
