import type { HousePolicy } from '@tempera/contract/policy';
import { advise, usualPolicy, type Advice, type AdviceCase, type DecisionPolicy } from '@tempera/core/calibration';
import { usualTasteAim } from '@tempera/core/taste';
import { doseWord, houseAsks, sourWord, stopWord } from './houseAsks.ts';

const shot = (timeS: number) => ({
  atMs: null,
  setting: 30,
  doseG: 18,
  yieldG: 36,
  timeS,
  firstDropS: 6,
  purgedG: 20,
  fault: null,
  group: null,
});

/** A made-up bench for showing what a policy does: a coarse collar that held yesterday, between two marks today. */
const example: AdviceCase = {
  recipe: { doseG: 18, yieldG: 36, timeS: { min: 25, max: 30 }, doseToleranceG: 0.3 },
  dial: { stepMarks: 1, finer: 'down', range: null },
  secondsPerMark: 5,
  retentionG: null,
  house: usualPolicy,
  since: { newBag: false, hours: 14 },
  held: null,
  remembered: null,
  trimG: 0,
  nowMs: null,
  events: [],
  shots: [],
  standsAt: 30,
  purgedG: 0,
};

const exampleTimesS = [25.4, 25.5] as const;

/** What the engine would advise after the first and after the second shot of the example, under a policy. */
export function adviceByPolicy(house: DecisionPolicy): { afterS: readonly number[]; advice: Advice }[] {
  return exampleTimesS.map((_, i) => {
    const afterS = exampleTimesS.slice(0, i + 1);
    return { afterS, advice: advise({ ...example, house, shots: afterS.map(shot) }) };
  });
}

const recipe = { doseG: 18, yieldG: 36, yieldToleranceG: 1.5, timeMinS: 25, timeMaxS: 30 };

/** What the bench would ask around those shots, under a policy. */
export function asksByPolicy(policy: HousePolicy): { when: string; asks: string }[] {
  return [
    { when: 'A dose, while serving', asks: doseWord(policy, recipe) },
    { when: 'In the shot', asks: stopWord(policy, recipe) },
    { when: 'The first shot, 36 g in 32 s', asks: houseAsks(policy, { yieldG: 36, timeS: 32 }, recipe, 1).join(', ') },
    { when: 'The second, 36 g in 27 s', asks: houseAsks(policy, { yieldG: 36, timeS: 27 }, recipe, 2).join(', ') },
    { when: 'It tastes sour', asks: sourWord(policy, usualTasteAim, recipe.yieldG) },
  ];
}
