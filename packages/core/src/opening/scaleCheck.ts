/** A bar scale that shows a known weight within this may be trusted: two of its steps of 0.1 g. */
const TRUSTED_G = 0.2;
/** 0.2 g as a binary fraction must not fail a scale that shows exactly 0.2 g more. */
const FLOAT_DUST_G = 1e-9;

export interface ScaleVerdict {
  offG: number;
  trusted: boolean;
}

/** What a scale shows for a weight that is known: grams too many (positive) or too few. */
export function checkScale(knownG: number, shownG: number): ScaleVerdict {
  const offG = shownG - knownG;
  return { offG, trusted: Math.abs(offG) <= TRUSTED_G + FLOAT_DUST_G };
}
