import type { Advice } from '@tempera/core/calibration';
import { expectedFinalG, findFirstDropS, lastMassG, readTrace, type MassTrace } from '@tempera/core/capture';
import type { DoseWay, FactOf, Measured, PurgeBody, ShotBody, YieldWay } from '@tempera/core/facts';
import type { LivePull } from '../capture/index.ts';
import type { Draft } from '../kernel/facts.tsx';
import type { BenchView } from './useBench.ts';

/** Facts as the bench writes them. */

const tenth = (value: number): number => Math.round(value * 10) / 10;

type Station = Pick<BenchView, 'grinder'>;

/** How a shot's numbers are known, as its fact says it: what was on the scale is not mentioned. */
function measuredAs(dose: DoseWay | undefined, byYield: YieldWay): { measured?: Measured } {
  const measured: Measured = {
    ...(dose === undefined || dose === 'scale' ? {} : { dose }),
    ...(byYield === 'scale' ? {} : { yield: byYield }),
  };
  return Object.keys(measured).length === 0 ? {} : { measured };
}

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
    ...measuredAs(draft.doseWay, 'scale'),
    ...(settled && readTrace({ ...trace, pumpOffS: timeS }).partial ? { partial: true } : {}),
    ...(draft.check ? { check: true } : {}),
    ...(live.volumeCount === null ? {} : { volumeCount: live.volumeCount }),
  };
}

export interface HandNumbers {
  yieldG: number;
  timeS: number;
  firstDropS: number | null;
  /** How the yield was read. */
  way: YieldWay;
  glassMl?: number;
  /** The dose, where none was weighed before. */
  doseG?: number;
}

/** The portafilter that a shot was pulled from, where the app did not see it pulled. */
export interface Portafilter {
  setting: number;
  doseG: number;
  doseWay?: DoseWay | undefined;
  check: boolean;
}

/** A shot that was pulled without the app, as somebody types it. */
export function enteredShot({ grinder }: Station, from: Portafilter, numbers: HandNumbers): ShotBody {
  const { way, doseG = from.doseG, ...read } = numbers;
  return {
    recipeVersionId: grinder.recipe.id,
    setting: from.setting,
    doseG,
    ...read,
    flaw: null,
    measuredBy: 'hand',
    trace: null,
    ...measuredAs(from.doseWay, way),
    ...(from.check ? { check: true } : {}),
  };
}

/** The shot of a pull whose numbers were read off and typed. */
export function handShot(station: Station, live: LivePull, numbers: HandNumbers): ShotBody {
  const { draft, trace, lost, volumeCount } = live;
  const { check = false } = draft;
  // A scale that went silent leaves what it saw until then.
  const kept = lost && trace.massG.length > 0;
  const entered = enteredShot(station, { ...draft, check }, numbers);
  const shot = volumeCount === null ? entered : { ...entered, volumeCount };
  return kept ? { ...shot, trace: { hz: trace.hz, massG: [...trace.massG] }, partial: true } : shot;
}

/** When the pump of a recorded shot stopped, s. @returns null where the recording shows no whole shot */
export function recordedStopS(trace: MassTrace): number | null {
  const read = readTrace({ ...trace, pumpOffS: null });
  const timeS = tenth(read.stopS ?? (trace.massG.length - 1) / trace.hz);
  return timeS < 1 || read.yieldG < 1 ? null : timeS;
}

/** A pull as a fact; dated when the pump started, so that writing it twice is writing it once. */
export function shotFact(grinderId: string, live: LivePull, body: ShotBody): Draft {
  const { id, startedAtMs, groupId } = live.draft;
  return { kind: 'shot', grinderId, groupId, body, id, at: new Date(startedAtMs).toISOString() };
}

/** A collar move and what was purged after it; empty when nothing was done. */
export function moveFacts(
  { grinder }: Station,
  done: { from: number; to: number; advisedTo: number | null } & PurgeBody,
): Draft[] {
  const { from, to, advisedTo, ...purge } = done;
  const at = { grinderId: grinder.id, groupId: null };
  return [
    ...(from === to ? [] : [{ kind: 'collarMove' as const, ...at, body: { from, to, advisedTo } }]),
    ...(purge.purgeG > 0 ? [{ kind: 'purge' as const, ...at, body: purge }] : []),
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
      ...otherDosesAt(view, advice.setting),
      chance: inWindow,
      expected: { timeS, lowS, highS },
      nextCheckMin: advice.nextCheckMin,
      shotIds: evidence.map((shot) => shot.id),
    },
  };
}

/** Single and double share the collar: at a lock the timer is set for each. */
function otherDosesAt({ grinder, state, house }: Pick<BenchView, 'grinder' | 'state' | 'house'>, setting: number) {
  if (house.dosing !== 'timed') return {};
  const otherDoses = grinder.others.flatMap(({ recipe }) => {
    const doseTimeS = state.grindTimeS(recipe.doseG, setting);
    return doseTimeS === null ? [] : [{ recipeVersionId: recipe.id, doseTimeS }];
  });
  return otherDoses.length === 0 ? {} : { otherDoses };
}

/** Where the collar stands, as close enough: locked there with the chance that it has, whatever was advised. */
export const lockHereFact = (view: Pick<BenchView, 'grinder' | 'group' | 'state' | 'house'>, advice: Advice): Draft =>
  lockFact(view, { ...advice, setting: advice.from, predicted: advice.here, doseG: null });
