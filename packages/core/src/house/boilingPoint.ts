const SEA_LEVEL_C = 100;
const METRES_PER_DEGREE = 300;

/**
 * Where water boils, degC: 100 - altitude / 300, the trade's rule, good to half a degree below 3,000 m.
 * @param altitudeM metres above the sea
 */
export function boilingPointC(altitudeM: number): number {
  return SEA_LEVEL_C - altitudeM / METRES_PER_DEGREE;
}

/** Water this close to boiling spits and steams in the group: it counts as too hot. */
const MARGIN_C = 0.5;

/** Whether brew water of `tempC` would boil there, or all but. */
export function boilsAt(tempC: number, altitudeM: number): boolean {
  return tempC > boilingPointC(altitudeM) - MARGIN_C;
}
