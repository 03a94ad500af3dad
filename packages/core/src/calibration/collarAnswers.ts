import type { AdviceCase } from './adviceCase.ts';
import type { CaseFit } from './caseFit.ts';
import { usualResponse } from './grinderPrior.ts';
import { marksFiner } from './dial.ts';

/** Turns in one direction before it is asked whether the collar answers at all, and the share of the usual answer that is one. */
const TURNS_ASKED = 2;
const LEAST_ANSWER = 0.25;

/**
 * Whether the shot time has followed the collar. Where two turns the same way changed next to nothing the grind is not the cause
 * (handbook: stale coffee, another basket, worn burrs), and is not chased.
 */
export function collarAnswers(input: AdviceCase, { heard }: Pick<CaseFit, 'heard'>): boolean {
  const places: { x: number; ln: number }[] = [];
  input.shots.forEach((shot, i) => {
    const normalisedS = heard[i]?.normalisedS ?? null;
    if (shot.fault !== null || normalisedS === null) return;
    const x = marksFiner(input.dial, shot.setting, 0);
    if (places.at(-1)?.x !== x) places.push({ x, ln: Math.log(normalisedS) });
  });
  const turns = places.slice(-1 - TURNS_ASKED);
  const [first, last] = [turns[0], turns.at(-1)];
  if (!first || !last || turns.length <= TURNS_ASKED) return true;
  const ways = new Set(turns.slice(1).map(({ x }, i) => Math.sign(x - (turns[i]?.x ?? x))));
  if (ways.size > 1) return true;
  return (last.ln - first.ln) / (last.x - first.x) >= LEAST_ANSWER * usualResponse(input);
}
