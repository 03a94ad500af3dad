import type { KnownGrinder } from './useGrinderStates.ts';

/** Where a tap on a grinder leads: the bench of its usual group, or the choice of one. */
export const usualBench = ({ grinder, lastGroup }: Pick<KnownGrinder, 'grinder' | 'lastGroup'>): string =>
  lastGroup ? `/bench/${grinder.id}/${lastGroup.id}` : `/bench/${grinder.id}`;
