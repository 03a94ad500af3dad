import type { ServiceAdvice } from '@tempera/core/day';
import { percent } from '../kernel/format.ts';
import type { DayStation } from './useDay.ts';

type Seen = Pick<DayStation, 'state'> & { advice: Pick<ServiceAdvice, 'here'> };

/** How sure it is that a grinder still runs inside, or what nobody has seen yet. @param name what it is called in the sentence */
export function sureWord({ state, advice }: Seen, name = 'it'): string {
  if (state.newBagAtMs !== null) return 'Another bag is in, and no shot of it was timed yet.';
  if (state.dueCause === 'taste') return 'Taste changed what is poured, and no shot of it was timed yet.';
  return `${percent(1 - advice.here.outside)} sure that ${name} is still inside.`;
}
