import { gaussian, seededRandom } from '../numbers/index.ts';
import type { DrawnStation } from './drawnBar.ts';

/** Seeds of what the house measures with, beside those of the bar itself. */
const WAYS_SEED = 700_000;
/** A basket that nobody ever weighed, and a millilitre of crema, are off by so much; ln. */
const LEVEL_OFF_SD = 0.04;
const GLASS_OFF_SD = 0.06;

/**
 * The same bar where nobody owns a scale: the dose struck level, the yield read off a marked glass, the time off a watch. What the
 * house then calls right is its own level and its own mark on the glass, shot after shot.
 */
export function withoutScale(station: DrawnStation, seed: number): DrawnStation {
  const random = seededRandom(WAYS_SEED + seed);
  return {
    ...station,
    measuring: {
      measured: { dose: 'levelled', yield: 'glass' },
      doseOff: LEVEL_OFF_SD * gaussian(random),
      doseSd: 0.015 + 0.02 * random(),
      yieldOff: GLASS_OFF_SD * gaussian(random),
      yieldSd: 0.02 + 0.02 * random(),
      readSd: 0.02 + 0.03 * random(),
    },
  };
}
