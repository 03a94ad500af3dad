import { usual } from '../numbers/index.ts';
import { drinkCard, type CutRecipe, type Drink } from './cuts.ts';

/** What a bar has to make drinks with. */
export interface PaceStations {
  groups: number;
  /** Grinders that hold the drink's coffee. */
  grinders: number;
  wands: number;
  people: number;
}

export type Station = keyof PaceStations;

export interface PacedDrink extends Drink {
  recipe: CutRecipe & { timeS: { min: number; max: number } };
  /** Grams a second out of the chute; null: as usual. */
  rateGps: number | null;
  /** Of a hundred orders. */
  orders: number;
}

/** Seconds that one drink keeps each station busy. */
type BusyS = Record<Station, number>;

export interface Pace {
  drinksPerHour: number;
  bottleneck: Station;
  busyS: BusyS;
}

const SECONDS_PER_HOUR = 3_600;
/** Knock out, rinse, lock in: the group stands idle for it. */
const GROUP_CHANGE_S = 12;
/** With a spare portafilter filled and tamped meanwhile, the group waits only for one to come out and the other to go in. */
const SPARE_CHANGE_S = 5;
const GRINDER_CHANGE_S = 3;
/** Dose, level, tamp, lock in, serve: work of the hands for each basket. The grinder and the group run by themselves. */
const HANDS_PER_BASKET_S = 28;
/** Pouring and handing over one drink. */
const HANDS_PER_DRINK_S = 10;
/** Filling the jug, putting air in, pouring; while it rolls, the hands are at the jug. */
const HANDS_PER_MILK_S = 14;
/** A wand condenses about this much heat into the milk, W. */
const STEAM_W = 1_900;
const MILK_J_PER_G_K = 3.93;
const FRIDGE_C = 5;
/** Blow clear, wipe, blow again. */
const WAND_CARE_S = 8;

/** Seconds that one drink keeps each station busy. @param changeS of a group, from one shot to the next */
function busyS(drink: PacedDrink, changeS: number): BusyS {
  const { doseG, milkG } = drinkCard(drink, drink.recipe);
  const { min, max } = drink.recipe.timeS;
  const steamS = (milkG * MILK_J_PER_G_K * (drink.milkTempC - FRIDGE_C)) / STEAM_W;
  const withMilk = drink.milkMl > 0;
  return {
    groups: drink.baskets * (((min + max) / 2) * drink.share ** TIME_OF_YIELD + changeS),
    grinders: doseG / (drink.rateGps ?? usual.grindRateGps) + drink.baskets * GRINDER_CHANGE_S,
    wands: withMilk ? steamS + WAND_CARE_S : 0,
    people: drink.baskets * HANDS_PER_BASKET_S + HANDS_PER_DRINK_S + (withMilk ? HANDS_PER_MILK_S + steamS / 2 : 0),
  };
}
/** A shorter cut runs for less time, all but in proportion (the engine's normalised shot time). */
const TIME_OF_YIELD = 0.95;

/**
 * Drinks an hour that the stations allow when each drink is ordered in its share, and which station sets the limit.
 * A bound, not a promise: it takes every station as busy all the time.
 * @param spare whether portafilters are filled ahead
 * @returns null when nothing is ordered, or a needed station is missing
 */
export function paceOf(drinks: readonly PacedDrink[], stations: PaceStations, spare = false): Pace | null {
  const orders = drinks.reduce((sum, drink) => sum + drink.orders, 0);
  if (orders <= 0) return null;
  const mean: BusyS = { groups: 0, grinders: 0, wands: 0, people: 0 };
  for (const drink of drinks) {
    const each = busyS(drink, spare ? SPARE_CHANGE_S : GROUP_CHANGE_S);
    for (const station of STATIONS) mean[station] += (each[station] * drink.orders) / orders;
  }
  const limits = STATIONS.filter((station) => mean[station] > 0).map((station) => ({
    station,
    perHour: (SECONDS_PER_HOUR * stations[station]) / mean[station],
  }));
  const tightest = limits.toSorted((a, b) => a.perHour - b.perHour)[0];
  if (!tightest || tightest.perHour <= 0) return null;
  return { drinksPerHour: tightest.perHour, bottleneck: tightest.station, busyS: mean };
}
const STATIONS: readonly Station[] = ['groups', 'grinders', 'wands', 'people'];

/** What would help a bar that is held up, and how many drinks an hour it would then allow. */
export interface PaceHelp {
  what: 'hands' | 'spare' | 'both';
  drinksPerHour: number;
}

/** Less than this nobody feels. */
const WORTH_DRINKS = 2;

/**
 * What a second pair of hands, a spare portafilter, or both would change, the most first; what changes nothing is left out. The
 * shot's own time is not among it: that is the recipe's, in a rush too.
 */
export function paceHelp(drinks: readonly PacedDrink[], stations: PaceStations): PaceHelp[] {
  const now = paceOf(drinks, stations)?.drinksPerHour ?? 0;
  const more = { ...stations, people: stations.people + 1 };
  const ways: [PaceHelp['what'], Pace | null][] = [
    ['hands', paceOf(drinks, more)],
    ['spare', paceOf(drinks, stations, true)],
    ['both', paceOf(drinks, more, true)],
  ];
  const one = Math.max(...ways.slice(0, 2).map(([, pace]) => pace?.drinksPerHour ?? 0));
  return ways
    .map(([what, pace]) => ({ what, drinksPerHour: pace?.drinksPerHour ?? 0 }))
    .filter(({ what, drinksPerHour }) => drinksPerHour >= (what === 'both' ? one : now) + WORTH_DRINKS)
    .toSorted((a, b) => b.drinksPerHour - a.drinksPerHour);
}
