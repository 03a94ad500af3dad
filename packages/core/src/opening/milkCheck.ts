import { boilingPointC, carryOverC } from '../house/index.ts';

/** What a thermometer is held into: both have a temperature that is known. */
export type ThermometerIn = 'ice' | 'boiling';

/** A milk thermometer that is further off would scald the milk or serve it cold. */
const TRUSTED_C = 1;

export interface ThermometerVerdict {
  /** What it should have shown. */
  shouldC: number;
  /** Degrees that it shows too many (positive) or too few. */
  offC: number;
  trusted: boolean;
}

/** A thermometer in melting ice shows 0 degC, in boiling water what water boils at up here. */
export function checkThermometer(held: ThermometerIn, showedC: number, altitudeM: number): ThermometerVerdict {
  const shouldC = held === 'ice' ? 0 : boilingPointC(altitudeM);
  const offC = showedC - shouldC;
  return { shouldC, offC, trusted: Math.abs(offC) <= TRUSTED_C };
}

/** When to stop the steam so that `milkMl` lands at `servedC`, as a thermometer that is `offC` off will show it. */
export function stopSteamC(servedC: number, milkMl: number, offC: number): number {
  return Math.round(servedC - carryOverC(milkMl) + offC);
}
