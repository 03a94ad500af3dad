import { lockRules, type AdviceCase, type LockRule } from './adviceCase.ts';
import type { Advice } from './advice.ts';
import { advise } from './advise.ts';
import { settingsAbout } from './dial.ts';
import { expectAt, type Expected } from './move.ts';
import { purgeAdviceG } from './retention.ts';

/** Something that could be done instead of the advice, or the advice itself. */
export interface Alternative {
  expected: Expected;
  /** Grams to purge before its next shot. */
  purgeG: number;
  /** Grams to weigh; null: the recipe's dose. */
  doseG: number | null;
  advised: boolean;
}

const STEPS_EITHER_SIDE = 2;

/** The settings about where the collar stands and where it is advised to go, in the order of the dial. */
export function alternatives(input: AdviceCase, advice: Advice): Alternative[] {
  const { dial, recipe, retentionG } = input;
  const settings = new Set(
    [advice.from, advice.setting].flatMap((at) => settingsAbout(dial, at, 0, STEPS_EITHER_SIDE)),
  );
  return [...settings]
    .sort((a, b) => a - b)
    .map((setting) => {
      const advised = setting === advice.setting;
      return {
        expected: advised ? advice.predicted : expectAt(advice.fit, input, setting),
        purgeG: setting === advice.from ? 0 : purgeAdviceG(recipe.doseG, retentionG),
        doseG: advised ? advice.doseG : null,
        advised,
      };
    });
}

/** What each school of "good enough" would do with the same shots. */
export function bySchool(input: AdviceCase): { rule: LockRule; advice: Advice }[] {
  return lockRules.map((lockRule) => ({
    rule: lockRule,
    advice: advise({ ...input, house: { ...input.house, lockRule } }),
  }));
}
