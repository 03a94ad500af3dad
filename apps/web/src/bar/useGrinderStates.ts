import type { Bar, Grinder, Group } from '@tempera/contract/bar';
import { grinderState, nextGrinder, type GrinderState } from '@tempera/core/bar';
import { ofGrinder } from '@tempera/core/facts';
import { useMemo } from 'react';
import { locksFromMs, openingFromMs } from '@tempera/core/opening';
import { useUnsent } from '../kernel/facts.tsx';
import { standingOfBar } from '../kernel/standing.ts';
import { useClosesAt, useController } from './serviceDue.ts';

export interface KnownGrinder {
  grinder: Grinder;
  state: GrinderState;
  /** The group it was last used on; null before its first shot. */
  lastGroup: Group | null;
}

/** How every grinder of the bar stands now, and which one needs a hand first. */
export function useGrinderStates(
  bar: Bar | undefined,
  nowMs: number,
): { all: KnownGrinder[]; next: KnownGrinder | null } {
  const unsent = useUnsent();
  const closesAt = useClosesAt();
  const dueMsOf = useController();
  return useMemo(() => {
    if (!bar) return { all: [], next: null };
    const facts = standingOfBar(bar, unsent);
    const groups = bar.machines.flatMap((machine) => machine.groups);
    const all = bar.grinders.map((grinder) => {
      const own = ofGrinder(facts, grinder.id);
      const fromMs = openingFromMs(facts, nowMs, grinder.id);
      const locks = fromMs === null ? null : locksFromMs(facts, fromMs);
      const clockMs = dueMsOf?.(bar, facts, grinder, closesAt) ?? null;
      const state = grinderState(facts, grinder, nowMs, { openingFromMs: locks, runFromMs: fromMs, clockMs });
      const lastGroupId = own.findLast((fact) => fact.groupId !== null)?.groupId;
      return { grinder, state, lastGroup: groups.find((group) => group.id === lastGroupId) ?? null };
    });
    return { all, next: nextGrinder(all) };
  }, [bar, unsent, nowMs, closesAt, dueMsOf]);
}
