import type { StandingFacts } from '@tempera/core/facts';
import { useUnsent } from '../kernel/facts.tsx';
import { nothingStands, standingOfBar } from '../kernel/standing.ts';
import { useBar } from './queries.ts';

/** What stands of the whole bar, sent or not; nothing while it is read. */
export function useStandingFacts(): StandingFacts {
  const { data: bar } = useBar();
  const unsent = useUnsent();
  return bar ? standingOfBar(bar, unsent) : nothingStands;
}
