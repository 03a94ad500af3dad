import {
  flowGps,
  goodBand,
  goodStart,
  lastMassG,
  learnedDrip,
  stopNow,
  type Drip,
  type GoodBand,
  type GoodStart,
} from '@tempera/core/capture';
import { endOfShot } from '@tempera/core/house';
import { useMemo } from 'react';
import { useLearned } from '../bar/index.ts';
import type { LivePull } from '../capture/index.ts';
import { useAfterFirst } from '../kernel/afterFirst.ts';
import { useSheets } from '../kernel/sheets.ts';
import type { BenchView } from './useBench.ts';

type ShotEnd = ReturnType<typeof endOfShot>;

/** How the shot under way is to be stopped, and when. */
export interface Stopping {
  /** What will still fall on this group. */
  drip: Drip;
  /** What ends it, and where. */
  end: ShotEnd;
  /** The count at which the machine stops it by itself; null: a hand does. */
  stopsAtCount: number | null;
  /** Between what masses the house's good shots ran. */
  band: GoodBand | null;
  /** How those shots begin, at whatever setting. */
  start: GoodStart | null;
}

/** How the shots of a bench are stopped. */
export function useStopping(view: BenchView): Stopping {
  const { group, grinder, house, facts } = view;
  const { data: learned } = useLearned();
  const { data: sheets } = useSheets('group');
  const known = learned?.drips.find(({ groupId }) => groupId === group.id);
  const drip = known ?? learnedDrip([]);
  const after = useAfterFirst();
  const { band, start } = useMemo(() => {
    // Nobody stops a shot in the moment in which a bench opens.
    if (!after) return { band: null, start: null };
    const good = new Set(facts.flatMap((fact) => (fact.kind === 'lock' ? fact.body.shotIds : [])));
    const traces = facts.flatMap((fact) =>
      fact.kind === 'shot' && good.has(fact.id) && fact.body.trace && !fact.body.partial ? [fact.body.trace] : [],
    );
    return { band: goodBand(traces), start: goodStart(traces) };
  }, [after, facts]);
  const buttons = sheets?.find(({ id }) => id === group.id)?.sheet.buttons ?? [];
  const double = buttons.toSorted((a, b) => b.counts - a.counts)[0]?.counts ?? null;
  const end = endOfShot(house, grinder.recipe, drip.meanG);
  return { drip, end, band, start, stopsAtCount: house.endsShot === 'volume' ? double : null };
}

/** Whether the shot under way is to be stopped now. */
export function isCue({ drip, end }: Pick<Stopping, 'drip' | 'end'>, live: LivePull | null, yieldG: number): boolean {
  if (live === null || live.draft.stoppedAtS !== null) return false;
  if (end.by === 'time') return live.elapsedS >= end.atS;
  const byEye = !live.draft.byScale || live.lost;
  return end.by === 'yield' && !byEye && stopNow(lastMassG(live.trace), flowGps(live.trace).at(-1) ?? 0, drip, yieldG);
}
