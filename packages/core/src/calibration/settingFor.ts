import type { AdviceCase } from './adviceCase.ts';
import { aimFrom } from './aim.ts';
import { fitCase } from './fitCase.ts';
import type { Expected } from './move.ts';

/** Where the collar gives the middle of the case's window, as far as is known, without judging any shot. */
export function settingFor(input: AdviceCase): Expected {
  const from = input.standsAt ?? input.shots.at(-1)?.setting ?? 0;
  return aimFrom(fitCase(input, from), input, from).target;
}
