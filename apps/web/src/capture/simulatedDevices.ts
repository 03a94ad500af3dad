import { gaussian, MS_PER_HOUR, MS_PER_SECOND, seededRandom, seedFrom, type Random } from '@tempera/core/numbers';
import type { DoseWay, StandingFacts } from '@tempera/core/facts';
import { scaleReading, simulatedStation, startShot, type StationSeed } from '@tempera/core/practice';
import { lastMassG, packReading, tared } from '@tempera/core/capture';
import { packetReader } from './drivers/bluetoothScale.ts';
import {
  scaleMishaps,
  type BenchDevices,
  type GrinderPort,
  type PullPort,
  type PullStart,
  type ScaleMishap,
} from './ports.ts';

const HZ = 10;
const STEP_S = 1 / HZ;
/** After the pump stops the last drops need about this long. */
const DRIP_S = 3;
const GRIND_READINGS = 20;
/** No pull is simulated for longer than this; a forgotten one ends by itself. */
const LONGEST_PULL_S = 240;
/** How close the hand comes to the dose: on the scale to a tenth or two, with a straight edge to half a gram. */
const DOSE_SD_G = { weighed: 0.08, levelled: 0.35, line: 0.45, eye: 0.8 };
/** A dose that nobody weighed is not quite what it is taken for. */
const UNWEIGHED_SD_G: Partial<Record<DoseWay, number>> = { timed: 0.2, ...DOSE_SD_G };
const DOSE_MS = 8_000;
/** A counter of the flow: so much before the first drop, and so much a gram. */
const COUNTS = { soak: 28, perG: 4.1 };
/** When a mishap of the scale befalls it, and how large it is. */
const MISHAP = { cupG: 62, atS: 12, driftGps: 0.04, knockG: 6, knockS: 0.5 };

/** A simulated station, and what its chance hangs on; null: on the moment, as in life. */
export type SimulatedPlace = StationSeed & { seed: number | null };

/** Draws so far on this page: where chance hangs on a seed, the next one is another all the same. */
let drawn = 0;

function chanceAt({ grinder, seed }: SimulatedPlace, what: string): Random {
  drawn += 1;
  return seededRandom(seedFrom(`${grinder.id} ${what} ${seed === null ? Date.now() : `${seed} ${drawn}`}`));
}

/**
 * A simulated grinder, machine and scale for one bench, `speed` times faster than life.
 * @param facts of the grinder so far: they tell where its collar stands and what its chute holds
 */
export function simulatedDevices(
  station: SimulatedPlace,
  facts: StandingFacts,
  speed: number,
): BenchDevices & { grinder: GrinderPort } {
  return {
    name: speed === 1 ? 'Simulated scale' : `Simulated scale (${speed} times as fast as life)`,
    scale: null,
    mishaps: scaleMishaps,
    drawFor: (done) =>
      station.seed === null ? undefined : `${station.seed} ${station.grinder.id} ${station.groupId} ${done}`,
    grinder: {
      doseBy: (way, doseG) => {
        const random = chanceAt(station, way);
        const dose = doseG + DOSE_SD_G[way] * gaussian(random);
        return new Promise((resolve) => setTimeout(() => resolve(Math.round(dose * 10) / 10), DOSE_MS / speed));
      },
      grind: (grindTimeS, onReading) =>
        new Promise((resolve) => {
          const random = chanceAt(station, 'grind');
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
            (grindTimeS * MS_PER_SECOND) / speed / GRIND_READINGS,
          );
        }),
    },
    pull: (start) => simulatedPull(station, facts, start, speed),
  };
}

function simulatedPull(station: SimulatedPlace, facts: StandingFacts, start: PullStart, speed: number): PullPort {
  const random = seededRandom(seedFrom(start.draw ?? start.id));
  // The air of a seeded bar stands still.
  const airMs = station.seed === null ? start.startedAtMs : station.seed * MS_PER_HOUR;
  const unseenG = (UNWEIGHED_SD_G[start.doseWay ?? 'scale'] ?? 0) * gaussian(chanceAt(station, start.id));
  const set = simulatedStation(station, facts).shotSetUp(start.doseG + unseenG, airMs, random);
  const run = startShot(set);
  const massG: number[] = [];
  const hear = packetReader(({ g }) => massG.push(g));
  let stoppedAtS = start.stoppedAtS;

  const elapsedS = (): number => Math.min(LONGEST_PULL_S, ((Date.now() - start.startedAtMs) / MS_PER_SECOND) * speed);
  const countAt = (timeS: number): number => Math.round(COUNTS.soak + COUNTS.perG * run.cupG(timeS));
  /** Stops by itself once the counter has come to its mark. */
  const stopByVolume = (): void => {
    const most = start.stopsAtCount ?? null;
    if (most === null || stoppedAtS !== null) return;
    for (let i = 1; i <= elapsedS() * HZ; i += 1) {
      if (countAt(i * STEP_S) < most) continue;
      stoppedAtS = Math.round(i) / HZ;
      return;
    }
  };
  const mishap = start.mishap ?? null;
  const isLost = (): boolean => mishap === 'lost' && elapsedS() >= MISHAP.atS;
  /** Reads the scale up to now; a reload replays it from the start with the same draws. */
  const catchUp = (): void => {
    stopByVolume();
    const untilS = Math.min(
      elapsedS(),
      stoppedAtS === null ? Infinity : stoppedAtS + DRIP_S,
      mishap === 'lost' ? MISHAP.atS : Infinity,
    );
    while (massG.length * STEP_S <= untilS) {
      if (stoppedAtS !== null) run.stopPump(stoppedAtS);
      const atS = massG.length * STEP_S;
      const g = Math.max(0, scaleReading(run.cupG(atS) + befalls(mishap, atS), random));
      // It speaks as any bar scale does, and is heard by the very driver.
      hear(packReading({ g, clockMs: atS * MS_PER_SECOND, stable: false }), start.startedAtMs + atS * MS_PER_SECOND);
    }
  };
  return {
    weighs: true,
    elapsedS: () => {
      stopByVolume();
      return stoppedAtS ?? elapsedS();
    },
    lost: isLost,
    volumeCount: () => countAt(stoppedAtS ?? elapsedS()),
    stoppedAtS: () => {
      stopByVolume();
      return stoppedAtS;
    },
    trace: () => {
      catchUp();
      return { hz: HZ, massG };
    },
    stopPump: (atS) => {
      stoppedAtS ??= atS ?? Math.round(elapsedS() * HZ) / HZ;
      return stoppedAtS;
    },
    cupG: () => {
      catchUp();
      return lastMassG(tared({ hz: HZ, massG }));
    },
    leave: () => undefined,
    end: () => undefined,
    // A forgotten pull ends where the simulation does, and has dripped out by then.
    settled: () => stoppedAtS !== null && elapsedS() >= Math.min(stoppedAtS + DRIP_S, LONGEST_PULL_S),
  };
}

/** Grams that a mishap adds to the scale's reading. */
function befalls(mishap: ScaleMishap | null, atS: number): number {
  if (mishap === 'untared') return MISHAP.cupG;
  if (mishap === 'drift') return MISHAP.driftGps * atS;
  return mishap === 'knock' && atS >= MISHAP.atS && atS < MISHAP.atS + MISHAP.knockS ? MISHAP.knockG : 0;
}
