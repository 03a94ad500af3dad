import type { AdviceCase } from './adviceCase.ts';
import { engineDefaults } from './engineDefaults.ts';
import type { Expected } from './move.ts';
import type { PouredShot } from './poured.ts';
import { missOf } from './windowMiss.ts';

/** What the house's rule says of the setting where the collar stands. */
export interface LockVerdict {
  lock: boolean;
  /** More shots would not change the answer, although the rule is not met. */
  settled: boolean;
}

/** Sound shots that a house counts before it trusts a setting. */
export const NEEDED = { firstGood: 1, oneRepeat: 2, meanOfThree: 3 } as const;

/**
 * Whether the house trusts the setting: by sureness, or by counting good shots. However sure it is, what was just poured
 * speaks first: the last sound shot must lie inside (where the house decides by the mean of three: the mean).
 * @param poured sound shots at this setting, at the dose they were poured for
 * @param isBest whether no other mark is better by more than noise
 */
export function lockVerdict(
  input: AdviceCase,
  poured: readonly PouredShot[],
  here: Expected,
  isBest: boolean,
): LockVerdict {
  const last = poured.at(-1);
  if (!last) return { lock: false, settled: false };
  const { settledSd, hopeless } = engineDefaults;
  const settled = isBest && (here.sd <= settledSd || (here.inWindow < hopeless && poured.length > 1));
  const inside = last.missS === 0;
  // Who counts good shots and just had one has another to pull, however sure it is.
  if (input.house.lockRule !== 'sureness') return { lock: countIsMet(input, poured), settled: settled && !inside };
  return { lock: inside && (here.inWindow >= input.house.sureness || settled), settled };
}

function countIsMet({ house, recipe }: AdviceCase, poured: readonly PouredShot[]): boolean {
  if (house.lockRule === 'sureness') return false;
  const needed = NEEDED[house.lockRule];
  const last = poured.slice(-needed);
  if (last.length < needed) return false;
  if (house.lockRule !== 'meanOfThree') return last.every(({ missS }) => missS === 0);
  // Those of the last lock help a good shot to confirm it; they do not talk one away that lies outside.
  if (last.at(-1)?.missS !== 0 && last.some(({ beforeLock }) => beforeLock)) return false;
  return missOf(last.reduce((sum, { normalisedS }) => sum + normalisedS, 0) / needed, recipe.timeS) === 0;
}
