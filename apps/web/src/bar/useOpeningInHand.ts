import { isStep, standingSteps } from '@tempera/core/facts';
import { morningOf, type Morning } from '@tempera/core/opening';
import { useMemo } from 'react';
import { useUnsent } from '../shell/facts.tsx';
import { mergeSteps } from '../shell/mergeFacts.ts';
import { useBar } from './queries.ts';

/** The opening under way that nobody has signed for; null when there is none. */
export function useOpeningInHand(nowMs: number): Morning | null {
  const { data: bar } = useBar();
  const unsent = useUnsent();
  return useMemo(() => {
    const steps = mergeSteps(bar?.steps ?? [], unsent);
    const morning = morningOf(steps, nowMs);
    if (!morning) return null;
    const signed = standingSteps(steps)
      .filter(isStep('signedOff'))
      .some(({ at }) => Date.parse(at) >= morning.fromMs);
    return signed ? null : morning;
  }, [bar, unsent, nowMs]);
}
