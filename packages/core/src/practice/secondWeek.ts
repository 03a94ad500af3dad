import { gaussian } from '../numbers/index.ts';
import { advise, type Remembered } from '../calibration/index.ts';
import { runMorning, type MorningResult, type WayOfWorking } from './closedLoop.ts';

import { drawStation, type DrawnStation } from './drawnBar.ts';
import { turnOf } from './waysOfWorking.ts';

/** What a night does to a grinder that held: air, age and bags, in ln of resistance. */
export const NIGHT_SD = 0.12;
const NIGHT_HOURS = 14;
const MORNINGS_BETWEEN = 6;

export interface TwoWeeks {
  first: MorningResult;
  /** The same weekday a week later, with what was learned since. */
  second: MorningResult;
  /** That same morning by an engine that remembers nothing. */
  secondWithoutMemory: MorningResult;
}

/** One grinder over a week of mornings: each starts where the last was locked, moved on by a night. */
export function runTwoWeeks(seed: number): TwoWeeks {
  const station = drawStation(seed);
  let memory: Remembered | null = null;
  const remembering: WayOfWorking = (input) => {
    const advice = advise(input);
    const { bar, reference } = advice.fit;
    memory = { bar, reference, grinder: 'this' };
    return turnOf(advice);
  };
  const first = runMorning(station, remembering);
  let today = first;
  let nightsOff = 0;
  for (let day = 0; day < MORNINGS_BETWEEN; day += 1) {
    nightsOff += NIGHT_SD * gaussian(station.random);
    today = runMorning(afterNights(station, today.setting, nightsOff), remembering, memory);
  }
  nightsOff += NIGHT_SD * gaussian(station.random);
  const morning = (): DrawnStation => afterNights(station, today.setting, nightsOff);
  return {
    first,
    second: runMorning(morning(), remembering, memory),
    secondWithoutMemory: runMorning(morning(), remembering),
  };
}

/** The same grinder some nights later, standing where it was left. */
export function afterNights(station: DrawnStation, startSetting: number, offBy: number): DrawnStation {
  return {
    ...station,
    startSetting,
    believed: { ...station.believed, since: { newBag: false, hours: NIGHT_HOURS } },
    lnResistanceAt: (setting) => station.lnResistanceAt(setting) + offBy,
  };
}
