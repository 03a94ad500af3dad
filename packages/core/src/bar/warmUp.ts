import { MS_PER_MINUTE } from '../numbers/index.ts';
import { stepsOf, type GaugeReading, type StandingFacts, type StepBody } from '../facts/index.ts';

/** A machine that was on for longer stood warm for another reason. */
const LONGEST_WARM_UP_MIN = 180;

/** Whether a step tells how warm this machine is. */
const isOf = (body: StepBody, machineId: string): boolean =>
  (body.step === 'switchedOn' || body.step === 'hot' || body.step === 'switchedOff') && body.machineId === machineId;

/** How a machine stands: off or not known, warming since, or hot since (ms since the epoch). */
export type Warmth = { is: 'unknown' } | { is: 'warming' | 'hot'; sinceMs: number };

/** Where a machine stands by its steps; a hot one counts for the day in which it was switched on. */
export function warmthOf(facts: StandingFacts, machineId: string, nowMs: number): Warmth {
  const last = stepsOf(facts).findLast(({ body }) => isOf(body, machineId));
  if (!last || last.body.step === 'switchedOff') return { is: 'unknown' };
  const sinceMs = Date.parse(last.at);
  const HOURS_ON = 16;
  if (nowMs - sinceMs > HOURS_ON * 60 * MS_PER_MINUTE) return { is: 'unknown' };
  return { is: last.body.step === 'hot' ? 'hot' : 'warming', sinceMs };
}

/** Minutes from each switch-on to the gauges' word that it is hot, oldest first. */
export function warmUpsMin(facts: StandingFacts, machineId: string): number[] {
  const minutes: number[] = [];
  let onMs: number | null = null;
  for (const { at, body } of stepsOf(facts)) {
    if (!isOf(body, machineId)) continue;
    const atMs = Date.parse(at);
    if (body.step === 'switchedOn') onMs = atMs;
    if (body.step === 'hot' && onMs !== null) {
      const took = (atMs - onMs) / MS_PER_MINUTE;
      if (took <= LONGEST_WARM_UP_MIN) minutes.push(took);
      onMs = null;
    }
  }
  return minutes;
}

/** A sheet's word is worth this many minutes of doubt; one morning differs from the next by about as much. */
const STATED_SD_MIN = 6;
const MORNING_SD_MIN = 4;

/** How long a machine warms up: the sheet's word, and what the mornings taught (normal mean, known sd). */
export function learnedWarmUp(statedMin: number, minutes: readonly number[]): { meanMin: number; sdMin: number } {
  const priorWeight = 1 / STATED_SD_MIN ** 2;
  const weight = 1 / MORNING_SD_MIN ** 2;
  const sum = minutes.reduce((total, took) => total + took, 0);
  const precision = priorWeight + weight * minutes.length;
  return {
    meanMin: (statedMin * priorWeight + sum * weight) / precision,
    // The next morning differs from the mean, however well that is known.
    sdMin: Math.sqrt(1 / precision + MORNING_SD_MIN ** 2),
  };
}

/** A gauge's limits. */
export interface GaugeLimits {
  name: string;
  unit: string;
  min: number;
  max: number;
}

export type GaugeVerdict = 'inside' | 'low' | 'high' | 'unread';

/** What each gauge says: inside its limits, below, above, or not read. */
export function judgeGauges(
  gauges: readonly GaugeLimits[],
  readings: readonly GaugeReading[],
): { gauge: GaugeLimits; verdict: GaugeVerdict }[] {
  return gauges.map((gauge) => {
    const value = readings.find((reading) => reading.gauge === gauge.name)?.value;
    if (value === undefined || Number.isNaN(value)) return { gauge, verdict: 'unread' as const };
    return { gauge, verdict: value < gauge.min ? 'low' : value > gauge.max ? 'high' : 'inside' };
  });
}
