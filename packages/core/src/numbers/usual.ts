/** The trade's usual numbers, taken where a house has not said or measured its own. */
export const usual = {
  /** Grinding rate of an espresso grinder, grams a second: 18 g in about nine seconds. */
  grindRateGps: 2,
  /** Dead time between the button and the first grounds, seconds. */
  grindLagS: 0.3,
  /** Grams that still fall after the stop: about a second of flow. */
  dripG: 1.6,
  /** The same in seconds of the flow at the stop. */
  dripS: 1,
  /** Dose tolerance where the recipe states none, grams. */
  doseToleranceG: 0.3,
} as const;
