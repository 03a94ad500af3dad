import { flowGps, goodBand, lastMassG, learnedDrip, stopNow, type Drip, type GoodBand } from '@tempera/core/capture';
import { endOfShot } from '@tempera/core/house';
import { useMemo } from 'react';
import { useLearned } from '../bar/index.ts';
import type { LivePull } from '../capture/index.ts';
import { useSheets } from '../kernel/sheets.ts';
import type { BenchView } from './useBench.ts';

/** How the shot under way is to be stopped, and when. */
export interface Stopping {
  /** Now. */
  cue: boolean;
  /** What will still fall on this group. */
  drip: Drip;
  /** The count at which the machine stops it by itself; null: a hand does. */
  stopsAtCount: number | null;
  /** Between what masses the house's good shots ran. */
  band: GoodBand | null;
}

export function useStopping(view: BenchView, live: LivePull | null): Stopping {
  const { group, grinder, house, facts } = view;
  const { data: learned } = useLearned();
  const { data: sheets } = useSheets('group');
  const known = learned?.drips.find(({ groupId }) => groupId === group.id);
  const drip = known ?? learnedDrip([]);
  const band = useMemo(() => {
    const good = new Set(facts.flatMap((fact) => (fact.kind === 'lock' ? fact.body.shotIds : [])));
    const traces = facts.flatMap((fact) =>
      fact.kind === 'shot' && good.has(fact.id) && fact.body.trace && !fact.body.partial ? [fact.body.trace] : [],
    );
    return goodBand(traces);
  }, [facts]);
  const buttons = sheets?.find(({ id }) => id === group.id)?.sheet.buttons ?? [];
  const double = buttons.toSorted((a, b) => b.counts - a.counts)[0]?.counts ?? null;
  const end = endOfShot(house, grinder.recipe, drip.meanG);
  const running = live !== null && live.draft.stoppedAtS === null;
  const byEye = live?.draft.byScale !== true || live.lost;
  const cue =
    running &&
    (end.by === 'time'
      ? live.elapsedS >= end.atS
      : end.by === 'yield' &&
        !byEye &&
        stopNow(lastMassG(live.trace), flowGps(live.trace).at(-1) ?? 0, drip, grinder.recipe.yieldG));
  return { cue, drip, band, stopsAtCount: house.endsShot === 'volume' ? double : null };
}
