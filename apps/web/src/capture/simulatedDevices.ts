import type { AnyFact } from '@tempera/core/journal';
import {
  scaleReading,
  seededRandom,
  seedFrom,
  simulatedStation,
  startShot,
  type StationSeed,
} from '@tempera/core/practice';
import type { BenchDevices, PullPort, PullStart } from './ports.ts';

const HZ = 10;
const STEP_S = 1 / HZ;
const MS_PER_S = 1_000;
/** After the pump stops the last drops need about this long. */
const DRIP_S = 3;
const GRIND_READINGS = 20;
/** No pull is simulated for longer than this; a forgotten one ends by itself. */
const LONGEST_PULL_S = 240;

/**
 * A simulated grinder, machine and scale for one bench, `speed` times faster than life.
 * @param facts of the grinder so far: they tell where its collar stands and what its chute holds
 */
export function simulatedDevices(station: StationSeed, facts: readonly AnyFact[], speed: number): BenchDevices {
  return {
    name: speed === 1 ? 'Simulated scale' : `Simulated scale (${speed} times as fast as life)`,
    grinder: {
      grind: (grindTimeS, onReading) =>
        new Promise((resolve) => {
          const random = seededRandom(seedFrom(`${station.grinder.id} ${Date.now()}`));
          const doseG = simulatedStation(station, facts).grind(grindTimeS, random);
          let reading = 0;
          const timer = setInterval(
            () => {
              reading += 1;
              onReading(scaleReading((doseG * reading) / GRIND_READINGS, random));
              if (reading < GRIND_READINGS) return;
              clearInterval(timer);
              resolve(Math.round(doseG * 10) / 10);
            },
            (grindTimeS * MS_PER_S) / speed / GRIND_READINGS,
          );
        }),
    },
    pull: (start) => simulatedPull(station, facts, start, speed),
  };
}

function simulatedPull(station: StationSeed, facts: readonly AnyFact[], start: PullStart, speed: number): PullPort {
  const random = seededRandom(seedFrom(start.id));
  const set = simulatedStation(station, facts).shotSetUp(start.doseG, start.startedAtMs, random);
  const run = startShot(set);
  const massG: number[] = [];
  let stoppedAtS = start.stoppedAtS;

  const elapsedS = (): number => Math.min(LONGEST_PULL_S, ((Date.now() - start.startedAtMs) / MS_PER_S) * speed);
  /** Reads the scale up to now; a reload replays it from the start with the same draws. */
  const catchUp = (): void => {
    const untilS = Math.min(elapsedS(), stoppedAtS === null ? Infinity : stoppedAtS + DRIP_S);
    while (massG.length * STEP_S <= untilS) {
      if (stoppedAtS !== null) run.stopPump(stoppedAtS);
      massG.push(Math.max(0, scaleReading(run.cupG(massG.length * STEP_S), random)));
    }
  };
  return {
    elapsedS: () => stoppedAtS ?? elapsedS(),
    trace: () => {
      catchUp();
      return { hz: HZ, massG };
    },
    stopPump: () => {
      stoppedAtS ??= Math.round(elapsedS() * HZ) / HZ;
      return stoppedAtS;
    },
    settled: () => stoppedAtS !== null && elapsedS() >= stoppedAtS + DRIP_S,
  };
}
