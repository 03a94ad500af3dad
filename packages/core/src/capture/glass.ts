/** What a millilitre in a marked glass weighs, crema included: g, its relative doubt (one sd), and how many glasses were weighed. */
export interface GlassWeight {
  gPerMl: number;
  sdShare: number;
  count: number;
}

/** Before any glass was weighed: 30 ml weigh 20 to 26 g, so 23 g, give or take an eighth at two sd. */
const USUAL = { gPerMl: 0.767, sdShare: 0.065 };
/** One glass differs from the next by its crema and its reading. */
const GLASS_SD_SHARE = 0.05;
/** Only the newest: crema goes as coffee fades. */
const NEWEST = 20;

/** What a reading in a marked glass is kept as: grams as such glasses weigh, and the millilitres themselves; both to a tenth. */
export function yieldInGlass(ml: number, { gPerMl }: Pick<GlassWeight, 'gPerMl'>): { yieldG: number; glassMl: number } {
  return { yieldG: Math.max(1, Math.round(10 * ml * gPerMl) / 10), glassMl: Math.round(10 * ml) / 10 };
}

/**
 * What glasses weigh (normal mean with known sd, from the usual), learned wherever a shot was both read off a glass and weighed.
 * @param weighed such shots, oldest first
 */
export function glassWeight(weighed: readonly { yieldG: number; glassMl: number }[]): GlassWeight {
  const seen = weighed.filter(({ yieldG, glassMl }) => yieldG > 0 && glassMl > 0).slice(-NEWEST);
  const priorWeight = 1 / USUAL.sdShare ** 2;
  const weight = 1 / GLASS_SD_SHARE ** 2;
  const precision = priorWeight + weight * seen.length;
  const heard = seen.reduce((sum, { yieldG, glassMl }) => sum + yieldG / glassMl, 0);
  return {
    gPerMl: (USUAL.gPerMl * priorWeight + weight * heard) / precision,
    sdShare: Math.sqrt(1 / precision),
    count: seen.length,
  };
}
