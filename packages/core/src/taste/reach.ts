import { fitsBasket, settingAt, type Dial } from '../calibration/index.ts';
import { tenth, type AimNumbers } from './todaysAim.ts';
import type { TasteChange } from './tasteChange.ts';

/** What a bar can be made to do, and what it cannot. */
export interface Reach {
  /** Today's aim. */
  aim: Pick<AimNumbers, 'doseG' | 'tempC'>;
  /** What the recipe's basket is made for; null: nobody said. */
  basketG: { min: number; max: number } | null;
  /** More than this is never weighed in; null: the recipe sets no such end. */
  mostDoseG: number | null;
  /** Whether the machine's brew temperature can be set. */
  setsTemp: boolean;
  dial: Dial;
  /** Where the collar stands. */
  setting: number;
}

/**
 * Whether a change can be carried out here: no machine is asked for a temperature that it does not set, no collar to go beyond its
 * end, and no basket for a dose that it is not made for, unless that is nearer to it than today's.
 */
export function canChange({
  aim,
  basketG,
  mostDoseG,
  setsTemp,
  dial,
  setting,
}: Reach): (change: TasteChange) => boolean {
  const ends = dial.range ?? { min: -Infinity, max: Infinity };
  return ({ lever, by }) => {
    switch (lever) {
      case 'yield':
        return true;
      case 'temperature':
        return setsTemp && aim.tempC !== null;
      case 'grind': {
        const to = settingAt(dial, by, setting);
        return to >= ends.min && to <= ends.max;
      }
      case 'dose': {
        const doseG = tenth(aim.doseG + by);
        if (mostDoseG !== null && by > 0 && doseG > mostDoseG) return false;
        return fitsBasket(doseG, basketG) || (basketG !== null && by > 0 === aim.doseG < basketG.min);
      }
    }
  };
}
