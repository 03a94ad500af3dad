import { gaussian, type Random } from '../numbers/index.ts';
import { advise } from './advise.ts';
import type { AdviceCase, CaseShot } from './adviceCase.ts';
import { marksFiner } from './dial.ts';
import { covarianceAt, meanAt, type ResponseLine } from './responseLine.ts';

/** What may be done next at a bench. */
export interface Choice {
  setting: number;
  purgeG: number;
  /** The dose to weigh; null: the recipe's. */
  doseG: number | null;
}

/** What a choice leads to, on average over many ways in which it may go on. */
export interface Rollout {
  /** Shots still to pull until it locks, this one included. */
  shots: number;
  /** One sd of that, from one way to the next. */
  shotsSd: number;
  /** Coffee still to be used, grams. */
  grams: number;
  /** Share that locked after the very next shot. */
  lockedAtOnce: number;
}

const MOST_SHOTS = 8;

/**
 * Plays a choice out until the engine locks, `runs` times. The grinder that it is played on is drawn from what the engine
 * holds of this very grinder, its doubt included: no other truth is known here.
 */
export function rollout(input: AdviceCase, choice: Choice, runs: number, random: Random): Rollout {
  const { line, reference } = advise(input).fit;
  const results = Array.from({ length: runs }, () => playOut(input, drawLine(line, random), reference, choice, random));
  const mean = (of: (result: { shots: number; grams: number }) => number): number =>
    results.reduce((sum, result) => sum + of(result), 0) / runs;
  const shots = mean((result) => result.shots);
  return {
    shots,
    shotsSd: Math.sqrt(mean((result) => (result.shots - shots) ** 2)),
    grams: mean(({ grams }) => grams),
    lockedAtOnce: mean((result) => Number(result.shots === 1)),
  };
}

/** One grinder that the engine would believe in: level and response drawn from their joint doubt (Cholesky). */
function drawLine(line: ResponseLine, random: Random): ResponseLine {
  const [a, b] = [gaussian(random), gaussian(random)];
  const levelSd = Math.sqrt(covarianceAt(line, 0, 0));
  const shared = levelSd > 0 ? line.levelResponseCovariance / levelSd : 0;
  const ownSd = Math.sqrt(Math.max(0, line.responseVariance - shared ** 2));
  return {
    ...line,
    level: line.level + levelSd * a,
    response: Math.max(line.response / 5, line.response + shared * a + ownSd * b),
  };
}

function playOut(
  input: AdviceCase,
  truth: ResponseLine,
  reference: number,
  first: Choice,
  random: Random,
): { shots: number; grams: number } {
  const { recipe } = input;
  const shots: CaseShot[] = [...input.shots];
  let choice = first;
  let grams = 0;
  for (let pulled = 1; ; pulled += 1) {
    const doseG = choice.doseG ?? recipe.doseG;
    const x = marksFiner(input.dial, choice.setting, reference);
    const lnDose = truth.doseExponent * Math.log(doseG / recipe.doseG);
    const lnT = meanAt(truth, x) + lnDose + Math.sqrt(truth.shotVariance) * gaussian(random);
    shots.push({
      atMs: input.nowMs,
      setting: choice.setting,
      doseG,
      yieldG: recipe.yieldG,
      timeS: Math.exp(lnT),
      firstDropS: null,
      purgedG: choice.purgeG,
      fault: null,
      group: shots.at(-1)?.group ?? null,
    });
    grams += doseG + choice.purgeG;
    if (pulled >= MOST_SHOTS) return { shots: pulled, grams };
    const advice = advise({ ...input, shots, standsAt: choice.setting, purgedG: 0 });
    if (advice.action === 'lock' || advice.closeEnough !== null) return { shots: pulled, grams };
    choice = { setting: advice.setting, purgeG: advice.purgeG, doseG: advice.doseG };
  }
}
