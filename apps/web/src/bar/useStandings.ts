import type { Bar, Grinder, Group } from '@tempera/contract/bar';
import { grinderStanding, nextGrinder, type GrinderStanding } from '@tempera/core/bar';
import type { AnyFact } from '@tempera/core/facts';
import { useMemo } from 'react';
import { useUnsent } from '../shell/facts.tsx';
import { mergeFacts } from '../shell/mergeFacts.ts';

export interface StandingGrinder {
  grinder: Grinder;
  state: GrinderStanding;
  /** The group it was last used on; null before its first shot. */
  lastGroup: Group | null;
}

/** How every grinder of the bar stands now, and which one needs a hand first. */
export function useStandings(
  bar: Bar | undefined,
  nowMs: number,
): { all: StandingGrinder[]; next: StandingGrinder | null } {
  const unsent = useUnsent();
  return useMemo(() => {
    if (!bar) return { all: [], next: null };
    const facts = mergeFacts(bar.facts, unsent);
    const groups = bar.machines.flatMap((machine) => machine.groups);
    const all = bar.grinders.map((grinder) => {
      const own: AnyFact[] = facts.filter((fact) => fact.grinderId === grinder.id);
      const state = grinderStanding(own, grinder.seedSetting, nowMs);
      const lastGroupId = own
        .toSorted((a, b) => Date.parse(b.at) - Date.parse(a.at))
        .find((fact) => fact.groupId !== null)?.groupId;
      return { grinder, state, lastGroup: groups.find((group) => group.id === lastGroupId) ?? null };
    });
    return { all, next: nextGrinder(all) };
  }, [bar, unsent, nowMs]);
}
