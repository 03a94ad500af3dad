import { useLocalStorage } from '@mantine/hooks';
import type { Session } from '@tempera/contract/team';
import { shotMiss } from '@tempera/core/calibration';
import type { MassTrace } from '@tempera/core/capture';
import { standingFacts, type DoseBody, type FactOf, type ShotBody } from '@tempera/core/facts';
import { limits } from '@tempera/core/house';
import { usual } from '@tempera/core/numbers';
import { checkDue } from '@tempera/core/bar';
import { useEffect, useReducer, useState } from 'react';
import { v7 as uuidv7 } from 'uuid';
import { useLocksFromMs, useOpeningInHand, useServiceDueMs } from '../bar/index.ts';
import { useBenchDevices, useMachineAt, usePull, type LivePull, type ScaleMishap } from '../capture/index.ts';
import { houseAsks } from '../house/index.ts';
import { useWriteFacts } from '../kernel/facts.tsx';
import { useNow } from '../ui/useNow.ts';
import { memoryWith } from '../kernel/barMemory.ts';
import {
  enteredShot,
  handShot,
  lockFact,
  lockHereFact,
  moveFacts,
  recordedStopS,
  shotFact,
  shotOfPull,
  type HandNumbers,
  type Portafilter,
} from './benchFacts.ts';
import { benchAfter, benchScreen, idleHands, ranOver } from './benchMoves.ts';
import { unwrittenWay } from './doseWords.ts';
import type { Measuring } from './PullControls.tsx';
import { checksOf, type BenchView } from './useBench.ts';
import { useStopping } from './useStopping.ts';
import { viewBench } from './viewBench.ts';

/** What a bench stands on. */
export interface BenchStand {
  view: BenchView;
  session: Session;
  /** Shots check the group at the setting that holds; the grinder is not dialled in. */
  check: boolean;
}

const inLimits = (of: 'yieldG' | 'timeS', value: number): boolean =>
  value >= limits[of].accept[0] && value <= limits[of].accept[1];

/** One round at a bench: what is seen, where it stands, and everything that may be done at this moment. */
export function useBenchRound({ view, session, check }: BenchStand) {
  const { grinder, group, state, house } = view;
  const { recipe } = grinder;
  const nowMs = useNow();
  const write = useWriteFacts();
  const opening = useOpeningInHand(nowMs, grinder.id);
  const devices = useBenchDevices({ ...view, siteId: session.site.id });
  const stopping = useStopping(view);
  const pull = usePull(grinder.id, devices, stopping.stopsAtCount, useMachineAt(group.id));
  const [measuring, setMeasuring] = useLocalStorage<Measuring>({ key: 'tempera.measuring', defaultValue: 'scale' });
  const [mishap, setMishap] = useLocalStorage<ScaleMishap | null>({ key: 'tempera.mishap', defaultValue: null });
  const [hands, send] = useReducer(benchAfter, idleHands);

  const { live } = pull;
  const written = live !== null && view.facts.some((fact) => fact.id === live.draft.id);
  const byScale = live !== null && live.draft.byScale && !live.lost;
  const provisional = live?.draft.stoppedAtS != null && byScale && !written ? shotOfPull(view, live) : null;
  // While the last drops fall the advice is already there, from the yield that they will make.
  const { advice } = provisional && live && !check ? withShot(view, live, provisional) : view;
  const checks = checksOf(view);
  const [checksBefore] = useState(checks.length);
  const checked = checks.length > checksBefore;
  const shots = check ? checks : state.shots;
  const lastShot = shots.at(-1) ?? null;
  const openingFromMs = useLocksFromMs(nowMs, grinder.id);
  const clockMs = useServiceDueMs(grinder.id);
  const dueAt = checkDue(state.lastLock, { ...state, openingFromMs, runFromMs: opening, clockMs });
  const screen = benchScreen(hands, {
    pull: live && {
      groupId: live.draft.groupId,
      elapsedS: live.elapsedS,
      stoppedAtS: live.draft.stoppedAtS,
      byScale,
    },
    groupId: group.id,
    timeMaxS: recipe.timeMaxS,
    doseWaits: view.dose !== null,
    check: check ? { pulled: checked } : null,
    state,
    advice,
    due: dueAt !== null && nowMs >= dueAt.atMs,
  });
  const dose = screen.doseWaits ? view.dose : null;
  // Between two marks the dose takes up the rest: what is weighed next may differ from the recipe.
  const askedG = view.advice.doseG ?? recipe.doseG;
  const timed = house.dosing === 'timed';

  useEffect(() => {
    if (!live || !live.settled || !byScale) return;
    const shot = shotOfPull(view, live);
    // What no shot can have been is not refused later: it is typed.
    const canBe = inLimits('yieldG', shot.yieldG) && inLimits('timeS', shot.timeS) && !ranOver(shot, recipe.yieldG);
    if (!written && !canBe) {
      pull.typeRest(recipe.timeMaxS);
      return;
    }
    if (!written) write([shotFact(grinder.id, live, shot)]);
    pull.end();
  }, [live, byScale, written, write, grinder.id, view, pull, recipe.timeMaxS, recipe.yieldG]);

  /** What is in the portafilter, as far as anybody wrote it down. */
  const portafilter: Portafilter = {
    setting: state.setting,
    doseG: dose?.body.doseG ?? askedG,
    doseWay: dose ? dose.body.way : unwrittenWay[house.dosing],
    check,
  };
  const endPull = (): void => {
    pull.end();
    send({ kind: 'pullEnded' });
  };
  const startOrStop = (): void => {
    if (live && live.draft.stoppedAtS === null) {
      performance.mark('shot-stopped');
      pull.stop();
      return;
    }
    if (pull.pulling || hands.enters || measuring === 'recording') return;
    const now = Date.now();
    const draw = devices?.drawFor(
      view.facts.filter((fact) => fact.kind === 'shot' && fact.groupId === group.id).length,
    );
    send({ kind: 'pullStarted' });
    pull.start({
      ...portafilter,
      id: uuidv7({ msecs: now }),
      startedAtMs: now,
      stoppedAtS: null,
      groupId: group.id,
      byScale: devices !== null && measuring === 'scale',
      stopsAtCount: stopping.stopsAtCount,
      mishap: devices?.mishaps.find((one) => one === mishap) ?? null,
      ...(draw === undefined ? {} : { draw }),
    });
  };
  const keepNumbers = (numbers: HandNumbers): void => {
    if (live) {
      write([shotFact(grinder.id, live, handShot(view, live, numbers))]);
    } else {
      // A dose that was typed otherwise than it stood there was weighed.
      const doseWay = numbers.doseG === undefined || numbers.doseG === askedG ? portafilter.doseWay : 'scale';
      const body = enteredShot(view, { ...portafilter, doseWay }, numbers);
      write([{ kind: 'shot', grinderId: grinder.id, groupId: group.id, body }]);
    }
    endPull();
  };
  const keepChoke = (): void => {
    if (!live) return;
    const timeS = Math.min(limits.timeS.accept[1], Math.round(10 * live.elapsedS) / 10);
    const numbers = { yieldG: limits.yieldG.accept[0], timeS, firstDropS: null, way: 'scale' as const };
    write([shotFact(grinder.id, live, { ...handShot(view, live, numbers), flaw: 'choke' })]);
    endPull();
  };
  const keepRecording = (trace: MassTrace): boolean => {
    const stoppedAtS = recordedStopS(trace);
    if (stoppedAtS === null || pull.pulling) return false;
    const now = Date.now();
    const id = uuidv7({ msecs: now });
    pull.start({ ...portafilter, id, startedAtMs: now, stoppedAtS, groupId: group.id, byScale: true, recorded: trace });
    return true;
  };
  const keepDose = (body: Omit<DoseBody, 'setting'>): void => {
    send({ kind: 'doseKept' });
    write([{ kind: 'dose', grinderId: grinder.id, groupId: group.id, body: { setting: state.setting, ...body } }]);
  };
  const doAdvice = (): void => {
    const { from, setting, purgeG } = advice;
    if (advice.action === 'lock') write([lockFact(view, advice)]);
    else write(moveFacts(view, { from, to: setting, advisedTo: setting, purgeG }));
  };
  const slip = provisional ?? lastShot?.body ?? null;
  return {
    screen,
    hands,
    send,
    pull,
    stopping,
    devices,
    opening,
    nowMs,
    advice,
    provisional,
    shots,
    lastShot,
    slip,
    slipAsks:
      slip &&
      houseAsks(
        house,
        { yieldG: slip.yieldG, timeS: shotMiss(slip, view.target).normalisedS },
        recipe,
        state.shots.length,
      ),
    checked,
    dueAt,
    dose,
    askedG,
    /** The next grind time for what is asked here, weighed doses heard; before the first, from the believed rate. */
    grindTimeS: state.grindTimeS(askedG, state.setting) ?? firstGrindTimeS(view),
    /** The grind time at the advised setting; null where nothing is ground by time, or nothing was weighed. */
    advisedTimeS: timed ? state.grindTimeS(advice.doseG ?? recipe.doseG, advice.setting) : null,
    nextTimeS: timed ? state.grindTimeS(askedG, state.setting) : null,
    measuring: devices ? measuring : measuring === 'scale' ? ('hand' as const) : measuring,
    setMeasuring,
    mishap,
    mishaps: devices?.mishaps ?? [],
    setMishap,
    portafilter,
    startOrStop,
    keepNumbers,
    keepChoke,
    keepRecording,
    keepDose,
    doAdvice,
    endPull,
    lockHere: () => write([lockHereFact(view, advice)]),
    markFlaw: (shot: FactOf<'shot'>, flaw: NonNullable<ShotBody['flaw']>) =>
      write([
        {
          kind: 'correction',
          grinderId: grinder.id,
          groupId: shot.groupId,
          body: { factId: shot.id, withdrawn: false, shot: { flaw } },
        },
      ]),
  };
}

/** Everything about a round that its drawing needs. */
export type BenchRound = ReturnType<typeof useBenchRound>;

/** The advice as it would be with one more shot. */
function withShot(view: BenchView, live: LivePull, body: ShotBody): Pick<BenchView, 'advice'> {
  const { id, groupId, startedAtMs } = live.draft;
  const at = new Date(startedAtMs).toISOString();
  const shot = { id, kind: 'shot' as const, at, personId: '', grinderId: view.grinder.id, groupId, body };
  const standing = standingFacts([...view.standing, shot]);
  return viewBench(view.grinder, standing, view.bar, startedAtMs, memoryWith(view.memory, view.bar, shot));
}

/** A first grind time from the believed rate, before any dose was weighed. */
function firstGrindTimeS({ grinder }: BenchView): number {
  return Math.round((10 * grinder.recipe.doseG) / (grinder.rateGps ?? usual.grindRateGps)) / 10;
}
