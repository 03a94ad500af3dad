import { engineDefaults } from './engineDefaults.ts';

/** How far another bag is expected to move the shot time, before it was pulled. */
export interface BagShift {
  /** Seconds slower; negative: faster. */
  shiftS: number;
  sdS: number;
}

/**
 * What another bag of the same coffee will likely do to a shot of `timeS`: older coffee flows faster (handbook 6), and no
 * two bags are one bed. ln T shifts by the age slope times the days between, with the doubt of the slope and of the bag.
 * @param olderDays how much older the new bag is than the one before, as it drinks; null: nobody knows
 */
export function bagShift(timeS: number, olderDays: number | null): BagShift {
  const d = engineDefaults;
  if (olderDays === null) return { shiftS: 0, sdS: timeS * d.newBagSd };
  return {
    shiftS: timeS * d.agePerDay * olderDays,
    sdS: timeS * Math.hypot(d.newBagSd, d.agePerDaySd * olderDays),
  };
}
