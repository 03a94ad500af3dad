import { traceOfRecording, type MassTrace, type RecordedSample } from '@tempera/core/capture';
import { MS_PER_SECOND } from '@tempera/core/numbers';
import type { ScaleReading } from './drivers/link.ts';
import type { PullPort, PullStart } from './ports.ts';

/** A scale that said nothing for longer is gone, until it speaks again. */
const LOST_MS = 2_000;
/** The last drops have fallen once the scale has stood still for so long, or after so long at the latest. */
const STILL_S = 1.5;
const STILL_G = 0.15;
const LONGEST_DRIP_S = 10;
/** What was read is written down so often: a reload in mid-shot loses no more. */
const KEPT_EVERY_MS = 1_000;
const NO_TRACE: MassTrace = { hz: 10, massG: [] };

const keyOf = (pullId: string): string => `tempera.readings.${pullId}`;

function keptSamples(pullId: string): RecordedSample[] {
  try {
    return JSON.parse(sessionStorage.getItem(keyOf(pullId)) ?? '[]') as RecordedSample[];
  } catch {
    return [];
  }
}

interface WeighingScale {
  listen: (onReading: (reading: ScaleReading) => void) => () => void;
  /** Sets it to nought; null where it cannot. */
  tare: (() => Promise<void>) | null;
}

/**
 * A pull into a cup on a real scale: the hand starts and stops the pump and the clock, the scale's readings make the trace,
 * each at its own time. Taken up again after a reload with what was read before.
 */
export function pullOnScale(
  scale: WeighingScale,
  { id, startedAtMs, stoppedAtS: stoppedBeforeS }: PullStart,
): PullPort {
  const samples = keptSamples(id);
  let stoppedAtS = stoppedBeforeS;
  let heardAtMs = Date.now();
  let keptAtMs = 0;
  const nowS = (): number => (Date.now() - startedAtMs) / MS_PER_SECOND;
  if (samples.length === 0 && stoppedAtS === null) void scale.tare?.().catch(() => undefined);
  const off = scale.listen(({ atMs, g }) => {
    heardAtMs = Date.now();
    const timeS = (atMs - startedAtMs) / MS_PER_SECOND;
    if (timeS < 0 || timeS < (samples.at(-1)?.timeS ?? 0)) return;
    samples.push({ timeS, massG: g });
    if (heardAtMs - keptAtMs >= KEPT_EVERY_MS) keep();
  });
  const keep = (): void => {
    keptAtMs = heardAtMs;
    sessionStorage.setItem(keyOf(id), JSON.stringify(samples));
  };
  const standsStill = (sinceS: number): boolean => {
    const last = samples.filter(({ timeS }) => timeS >= Math.max(sinceS, nowS() - STILL_S)).map(({ massG }) => massG);
    return last.length > 0 && nowS() - sinceS >= 2 * STILL_S && Math.max(...last) - Math.min(...last) <= STILL_G;
  };
  return {
    weighs: true,
    elapsedS: () => stoppedAtS ?? nowS(),
    trace: () => {
      const recording = traceOfRecording(samples);
      return recording.ok ? recording.trace : NO_TRACE;
    },
    stopPump: (atS) => (stoppedAtS ??= atS ?? Math.round(nowS() * 10) / 10),
    stoppedAtS: () => stoppedAtS,
    settled: () => stoppedAtS !== null && (standsStill(stoppedAtS) || nowS() - stoppedAtS >= LONGEST_DRIP_S),
    lost: () => Date.now() - heardAtMs > LOST_MS,
    volumeCount: () => null,
    cupG: () => null,
    leave: () => {
      off();
      keep();
    },
    end: () => {
      off();
      sessionStorage.removeItem(keyOf(id));
    },
  };
}
