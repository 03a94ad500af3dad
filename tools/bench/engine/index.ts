import type { Figure } from '../figure.ts';
import { measureDays } from './days.ts';
import { measureFaults } from './faults.ts';
import { measureMornings } from './mornings.ts';
import { measureOtherBars } from './otherBars.ts';
import { measureTimings } from './timings.ts';
import { measureTraces } from './traces.ts';
import { measureWeeks } from './weeks.ts';
import { measureWithoutScale } from './withoutScale.ts';

/** Closed loop on the simulated bar: the engine beside the ways people work, on the same seeds. */
export function measureEngine(): Figure[] {
  return [
    measureMornings,
    measureOtherBars,
    measureWithoutScale,
    measureWeeks,
    measureDays,
    measureFaults,
    measureTraces,
    measureTimings,
  ].flatMap((measure) => measure());
}
