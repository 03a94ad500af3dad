/**
 * The numbers that a served day is steered by, each with its reason. ln T is the natural log of the normalised shot time in
 * seconds; a walk of 0.035 per root hour is 3.5 % of the time after an hour and 11 % after ten.
 */
export const dayNumbers = {
  /** Doubt of what the house says a mark is worth, as a share of it: guesses are off by half. */
  responseRelativeSd: 0.35,
  /** Timing a customer's own shot takes a look and two taps: worth so many cups outside. */
  checkCups: 6,
  /** A move throws a purge away and takes a moment between two orders: worth so many cups outside. */
  moveCups: 1,
  /** Another dose goes with another grind time, and no purge. */
  trimCups: 0.5,
  /**
   * With less chance of being outside than this nothing is changed in service. On simulated days it gives up a tenth of a percent of
   * the cups; an unasked turn at 98 % would give up more trust.
   */
  quietOutside: 0.05,
  /** Nobody turns or weighs otherwise for less than this in the chance of the window. */
  turnMargin: 0.02,
  /**
   * What a look tells helps for so many hours, at least and at most: what it put right stays right however the grinder wanders on,
   * and by the end of a shift others look.
   */
  lookHelpsHours: [1, 6],
  /** A move has paid for itself after so long: by then the grinder stands elsewhere. */
  moveLastsHours: 2,
  /** Cups an hour where nobody says: one in a minute and a half. */
  cupsPerHour: 40,
  /** A rush is so many times that. */
  rushTimes: 2,
  /** Nobody looks again sooner than this. */
  soonestCheckMin: 5,
  /** A timed shot outside that nobody answers with a move was noise, or the first of many: the next one says which. */
  doubtedCheckMin: 10,
  /** What may be outside more often than the house bears, and only a shot tells, waits no longer however few cups run. */
  openCheckMin: 20,
  /**
   * Doubt of ln of what a timer gives: of one that was just weighed or set, and added by a refill or a bag.
   */
  doseSetSd: 0.008,
  doseChangeSd: 0.015,
  /** Coffee that waits ground in a chamber is used first or thrown away after so long: within a quarter of an hour it smells of less. */
  chamberMin: 15,
  /** Nobody turns farther at once in service: more than this is a morning's question. */
  mostMarks: 8,
} as const;
