import type { MassTrace } from './trace.ts';

/** One line of a recorded shot. NaN where a field could not be read. */
export interface RecordedSample {
  timeS: number;
  massG: number;
}

export type RecordingFault = 'noSamples' | 'timeRunsBack' | 'tooLong' | 'noMass';
export type Recording = { ok: true; trace: MassTrace; lostLines: number } | { ok: false; fault: RecordingFault };

/** The rate of the bench. */
const HZ = 10;
/** Between samples further apart than this the scale was lost. */
const GAP_S = 0.45;
const LONGEST_S = 180;
/** No cup on a bar scale weighs more. */
const MOST_G = 5_000;
const FEWEST = 5;

/**
 * A recorded shot as a trace at the bench's rate: lines that cannot be read are left out and counted, between samples the
 * mass runs straight, and where the recording has a hole the trace has one.
 * @param samples in the order of the file; time in seconds from the pump's start, mass in grams
 */
export function traceOfRecording(samples: readonly RecordedSample[]): Recording {
  if (samples.length === 0) return { ok: false, fault: 'noSamples' };
  const read = samples.filter(({ timeS, massG }) => Number.isFinite(timeS) && Math.abs(massG) <= MOST_G && timeS >= 0);
  if (read.length < FEWEST) return { ok: false, fault: 'noMass' };
  if (read.some(({ timeS }, i) => i > 0 && timeS < (read[i - 1]?.timeS ?? 0)))
    return { ok: false, fault: 'timeRunsBack' };
  const endS = read.at(-1)?.timeS ?? 0;
  if (endS > LONGEST_S) return { ok: false, fault: 'tooLong' };
  const massG: (number | null)[] = [];
  let next = 0;
  for (let i = 0; i <= Math.floor(endS * HZ); i += 1) {
    const atS = i / HZ;
    while (next < read.length && (read[next]?.timeS ?? Infinity) < atS) next += 1;
    massG.push(between(read[next - 1], read[next], atS));
  }
  return { ok: true, trace: { hz: HZ, massG }, lostLines: samples.length - read.length };
}

/** The mass at a moment between two samples; null in a hole. */
function between(before: RecordedSample | undefined, after: RecordedSample | undefined, atS: number): number | null {
  if (after && after.timeS === atS) return after.massG;
  // Nothing falls in the first moments: what stood on the scale stood there before its first word.
  if (!before) return after && after.timeS - atS <= GAP_S ? after.massG : null;
  if (!after) return before.massG;
  const span = after.timeS - before.timeS;
  if (span > GAP_S) return null;
  return span === 0 ? after.massG : before.massG + ((after.massG - before.massG) * (atS - before.timeS)) / span;
}
