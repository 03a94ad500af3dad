import { seededRandom, seedFrom, usual } from '../numbers/index.ts';
import {
  advise,
  benchState,
  grindTimeForS,
  type BenchGrinder,
  type DecisionPolicy,
  type RecipeTarget,
} from '../calibration/index.ts';
import { findFirstDropS, lastMassG } from '../capture/index.ts';
import { standingFacts, type AnyFact, type FactBodies, type FactKind } from '../facts/index.ts';
import { simulatedStation, type StationSeed } from './simulatedStation.ts';
import { pullShot } from './simulatedShot.ts';

/** One grinder to be dialled in on one group by a person who follows every advice. */
export interface MorningJob {
  station: StationSeed;
  grinder: BenchGrinder;
  recipe: RecipeTarget & { recipeVersionId: string };
  house: DecisionPolicy;
  startMs: number;
  newId: (atMs: number) => string;
  /** Who does it. */
  personId: string;
}

const SHOT_MS = 72_000;
const MOVE_MS = 36_000;
const DOSE_MS = 20_000;
const MAX_SHOTS = 12;
/** The pump is stopped this much early: the rest drips. */
const STOP_EARLY_G = 1.7;
const HZ = 10;

/**
 * Runs the job on the simulated bar from `before` (facts so far) until the engine locks.
 * @returns the new facts, oldest first; without a lock when twelve shots did not do it
 */
export function simulateMorning(job: MorningJob, before: readonly AnyFact[]): AnyFact[] {
  const { station, recipe } = job;
  const facts: AnyFact[] = [];
  let atMs = job.startMs;
  const add = <K extends FactKind>(kind: K, body: FactBodies[K]): void => {
    facts.push({
      id: job.newId(atMs),
      kind,
      at: new Date(atMs).toISOString(),
      personId: job.personId,
      grinderId: station.grinder.id,
      groupId: kind === 'collarMove' || kind === 'purge' ? null : station.groupId,
      body,
    } as AnyFact);
  };
  const standing = () => standingFacts([...before, ...facts]);
  const look = () => benchState(standing(), job.grinder, recipe, job.house, atMs, null);

  for (let pulled = 0; pulled < MAX_SHOTS; pulled += 1) {
    const random = seededRandom(seedFrom(`${station.grinder.id} ${atMs}`));
    const bench = look();
    const grindTimeS = bench.grindTimeS(recipe.doseG, bench.setting) ?? believedGrindTimeS(job);
    const weigh = (): number => Math.round(simulatedStation(station, standing()).grind(grindTimeS, random) * 10) / 10;
    const tolerance = recipe.doseToleranceG ?? usual.doseToleranceG;
    let doseG = weigh();
    if (Math.abs(doseG - recipe.doseG) > tolerance) doseG = recipe.doseG;
    add('dose', { setting: bench.setting, doseG, grindTimeS, measuredBy: 'scale' });
    atMs += DOSE_MS;

    const set = simulatedStation(station, standing()).shotSetUp(doseG, atMs, random);
    const shot = pullShot({ ...set, recipe }, { atG: recipe.yieldG - STOP_EARLY_G, maxS: 2.5 * recipe.timeS.max });
    const trace = { hz: HZ, massG: shot.massG };
    const firstDropS = findFirstDropS(trace);
    add('shot', {
      recipeVersionId: recipe.recipeVersionId,
      setting: bench.setting,
      doseG,
      yieldG: Math.max(1, lastMassG(trace)),
      timeS: Math.round(shot.timeS * 10) / 10,
      firstDropS: firstDropS === null ? null : Math.round(firstDropS * 10) / 10,
      flaw: shot.channelled ? 'channel' : null,
      measuredBy: 'scale',
      trace,
    });
    atMs += SHOT_MS;

    const after = look();
    const advice = advise(after.adviceCase);
    if (advice.action === 'lock' || advice.closeEnough !== null) {
      const { timeS, lowS, highS, inWindow } = advice.predicted;
      add('lock', {
        recipeVersionId: recipe.recipeVersionId,
        setting: advice.setting,
        doseTimeS: after.grindTimeS(recipe.doseG, advice.setting),
        chance: inWindow,
        expected: { timeS, lowS, highS },
        nextCheckMin: advice.nextCheckMin,
        shotIds: after.shots.filter((fact) => fact.body.setting === advice.setting).map((fact) => fact.id),
      });
      break;
    }
    if (advice.action === 'move') {
      add('collarMove', { from: advice.from, to: advice.setting, advisedTo: advice.setting });
    }
    if (advice.purgeG > 0) add('purge', { purgeG: advice.purgeG });
    atMs += MOVE_MS;
  }
  return facts;
}

/** A first grind time from the rate that the house believes. */
function believedGrindTimeS({ station, recipe }: MorningJob): number {
  const rateGps = station.grinder.rateGps ?? usual.grindRateGps;
  const weighed = [{ grindTimeS: 5, doseG: rateGps * (5 - usual.grindLagS), x: 0, atMs: 0 }];
  return grindTimeForS(weighed, recipe.doseG, 0) ?? recipe.doseG / rateGps;
}
