import type { AdviceCase, Besides } from './adviceCase.ts';
import type { Judgement } from './judgement.ts';

/** What is known beside the grind that explains a shot far out; null: nothing is. Stale coffee runs fast, another basket either way. */
export function causeBeside({ besides = [] }: Pick<AdviceCase, 'besides'>, judgement: Judgement): Besides | null {
  if (besides.includes('otherBasket')) return 'otherBasket';
  const fast = judgement.kind === 'sound' && judgement.missS < 0;
  return fast && besides.includes('bagPast') ? 'bagPast' : null;
}
