import { mean } from '../numbers/index.ts';
import type { AdviceCase } from './adviceCase.ts';
import type { CaseFit } from './caseFit.ts';
import { pouredOf } from './poured.ts';
import { engineDefaults } from './engineDefaults.ts';
import { missOf } from './windowMiss.ts';

/** One shot at a mark is noise; two of them have said it. */
const SHOTS_THAT_SAY = 2;

/**
 * Whether what is asked for lies between two marks that were both tried: the sound shots of each lie outside in the mean, on opposite
 * sides, and those of the mark where the collar stands by no more. Whoever turns on goes to and fro.
 */
export function liesBetween(input: AdviceCase, fit: Pick<CaseFit, 'heard'>, from: number, to: number): boolean {
  const [here, there] = [meanMissS(input, fit, from), meanMissS(input, fit, to)];
  return here !== null && there !== null && here * there < 0 && Math.abs(here) <= Math.abs(there);
}

/** Seconds that a mark's sound shots lie outside in the mean, whenever they were pulled; null where too few were. */
function meanMissS(input: AdviceCase, { heard }: Pick<CaseFit, 'heard'>, setting: number): number | null {
  const sound = input.shots.flatMap((shot, i) => {
    const outcome = heard[i];
    const counts = shot.setting === setting && outcome && outcome.oldShare <= engineDefaults.oldShareNotPurged;
    return counts ? pouredOf(shot, outcome.normalisedS, input, false) : [];
  });
  if (sound.length < SHOTS_THAT_SAY) return null;
  return missOf(Math.exp(mean(sound.map(({ normalisedS }) => Math.log(normalisedS)))), input.recipe.timeS);
}
