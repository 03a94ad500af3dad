import type { Advice } from '@tempera/core/calibration';
import { expectedFinalG, findFirstDropS, lastMassG, readTrace, type MassTrace } from '@tempera/core/capture';
import type { FactOf, ShotBody } from '@tempera/core/facts';
import type { LivePull } from '../capture/index.ts';
import type { Draft } from '../kernel/facts.tsx';
import type { BenchView } from './useBench.ts';

/** Facts as the bench writes them. */

const tenth = (value: number): number => Math.round(value * 10) / 10;

type Station = Pick<BenchView, 'grinder'>;

/** The shot of a pull by the scale, as far as it has come: while it drips, the yield is what is still expected to fall. */
export function shotOfPull({ grinder }: Station, live: LivePull): ShotBody {
  const { draft, trace, settled } = live;
  const timeS = tenth(draft.stoppedAtS ?? live.elapsedS);
  const firstDropS = findFirstDropS(trace);
  const atStop = { hz: trace.hz, massG: trace.massG.slice(0, Math.ceil(timeS * trace.hz) + 1) };
  return {
    recipeVersionId: grinder.recipe.id,
    setting: draft.setting,
    doseG: draft.doseG,
    yieldG: Math.max(1, tenth(settled ? lastMassG(trace) : Math.max(expectedFinalG(atStop), lastMassG(trace)))),
    timeS: Math.max(1, timeS),
    firstDropS: firstDropS === null ? null : tenth(Math.min(firstDropS, timeS)),
    flaw: null,
    measuredBy: 'scale',
    trace: { hz: trace.hz, massG: [...trace.massG] },
    ...(draft.check ? { check: true } : {}),
    ...(live.volumeCount === null ? {} : { volumeCount: live.volumeCount }),
  };
}

export interface HandNumbers {
  yieldG: number;
  timeS: number;
  firstDropS: number | null;
}

/** The shot of a pull whose numbers were read off and typed. */
export function handShot({ grinder }: Station, { draft, trace, lost }: LivePull, numbers: HandNumbers): ShotBody {
  const { setting, doseG, check } = draft;
  // A scale that went silent leaves what it saw until then.
  const kept = lost && trace.massG.length > 0;
  return {
    recipeVersionId: grinder.recipe.id,
    setting,
    doseG,
    ...numbers,
    flaw: null,
    measuredBy: 'hand',
    trace: kept ? { hz: trace.hz, massG: [...trace.massG] } : null,
    ...(kept ? { partial: true } : {}),
    ...(check ? { check: true } : {}),
  };
}

/** The shot of a recording, with the dose that waited for it. @returns null where the recording shows no whole shot */
export function recordedShot(
  { grinder }: Station,
  at: { setting: number; doseG: number; check: boolean },
  trace: MassTrace,
): ShotBody | null {
  const read = readTrace({ ...trace, pumpOffS: null });
  const timeS = tenth(read.stopS ?? (trace.massG.length - 1) / trace.hz);
  if (timeS < 1 || read.yieldG < 1) return null;
  return {
    recipeVersionId: grinder.recipe.id,
    setting: at.setting,
    doseG: at.doseG,
    yieldG: tenth(read.yieldG),
    timeS,
    firstDropS: read.firstDropS === null ? null : tenth(Math.min(read.firstDropS, timeS)),
    flaw: null,
    measuredBy: 'scale',
    trace: { hz: trace.hz, massG: [...trace.massG] },
    ...(read.partial ? { partial: true } : {}),
    ...(at.check ? { check: true } : {}),
  };
}

/** A pull as a fact; dated when the pump started, so that writing it twice is writing it once. */
export function shotFact(grinderId: string, live: LivePull, body: ShotBody): Draft {
  const { id, startedAtMs, groupId } = live.draft;
  return { kind: 'shot', grinderId, groupId, body, id, at: new Date(startedAtMs).toISOString() };
}

/** A collar move and what was purged after it; empty when nothing was done. */
export function moveFacts(
  { grinder }: Station,
  done: { from: number; to: number; advisedTo: number | null; purgeG: number },
): Draft[] {
  const { from, to, advisedTo, purgeG } = done;
  const at = { grinderId: grinder.id, groupId: null };
  return [
    ...(from === to ? [] : [{ kind: 'collarMove' as const, ...at, body: { from, to, advisedTo } }]),
    ...(purgeG > 0 ? [{ kind: 'purge' as const, ...at, body: { purgeG } }] : []),
  ];
}

/** The lock of an advice, with the shots at this setting that it rests on. */
export function lockFact(view: Pick<BenchView, 'grinder' | 'group' | 'state' | 'house'>, advice: Advice): Draft {
  const { grinder, group, state, house } = view;
  const { timeS, lowS, highS, inWindow } = advice.predicted;
  const evidence = state.shots.filter(
    (shot: FactOf<'shot'>) => shot.body.setting === advice.setting && shot.body.flaw === null,
  );
  return {
    kind: 'lock',
    grinderId: grinder.id,
    groupId: group.id,
    body: {
      recipeVersionId: grinder.recipe.id,
      setting: advice.setting,
      doseTimeS:
        house.dosing === 'timed' ? state.grindTimeS(advice.doseG ?? grinder.recipe.doseG, advice.setting) : null,
      ...(advice.doseG === null ? {} : { doseG: advice.doseG }),
      chance: inWindow,
      expected: { timeS, lowS, highS },
      nextCheckMin: advice.nextCheckMin,
      shotIds: evidence.map((shot) => shot.id),
    },
  };
}

/** Where the collar stands, as close enough: locked there with the chance that it has, whatever was advised. */
export const lockHereFact = (view: Pick<BenchView, 'grinder' | 'group' | 'state' | 'house'>, advice: Advice): Draft =>
  lockFact(view, { ...advice, setting: advice.from, predicted: advice.here, doseG: null });
