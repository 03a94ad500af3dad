import type { CaseShot, Habit } from '../calibration/index.ts';
import { gaussian } from '../numbers/index.ts';
import { runMorning } from './closedLoop.ts';
import { drawStation, type DrawnStation } from './drawnBar.ts';
import { afterNights, NIGHT_SD } from './secondWeek.ts';
import { serveDay, servedByEngine, type DayResult } from './servedDay.ts';
import { usualDay, type DayKind } from './surroundings.ts';
import { byEngine } from './waysOfWorking.ts';

/** A house whose days are alike: its burrs warm by so much every morning, and its air is damp every afternoon; or the other way about. */
const WARMING = 0.08;
const SWING = 0.1;

/** A house that looks when it is worth it, and not by the hour: else every day has ten looks at least. */
const LONGEST_CHECK_MIN = 150;
const patient = (station: DrawnStation): DrawnStation => ({
  ...station,
  believed: {
    ...station.believed,
    house: { ...station.believed.house, longestCheckMin: LONGEST_CHECK_MIN },
  },
});

/** Days of one house, one after another, each begun with what the days before have taught. @param days how many @param checkCups the price of a look */
export function serveDays(seed: number, days: number, checkCups?: number): DayResult[] {
  const station = patient(drawStation(seed));
  const sign = station.random() < 0.5 ? 1 : -1;
  const kind: DayKind = { ...usualDay, warming: sign * WARMING, humiditySwing: sign * SWING };
  let habit: Habit | null = null;
  let left = station.startSetting;
  let nightsOff = 0;
  return Array.from({ length: days }, (_, dayNumber) => {
    const today = dayNumber === 0 ? station : afterNights(station, left, nightsOff);
    let shots: readonly CaseShot[] = [];
    let doseG: number | null = null;
    const { setting } = runMorning(today, (input, its) => {
      const turn = byEngine(input, its);
      ({ shots } = input);
      ({ doseG } = turn);
      return turn;
    });
    const served = serveDay(today, shots, { setting, doseG }, servedByEngine(checkCups), kind, { dayNumber, habit });
    ({ habit } = served);
    left = setting;
    nightsOff += NIGHT_SD * gaussian(station.random);
    return served;
  });
}
