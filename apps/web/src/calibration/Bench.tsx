import { usual } from '@tempera/core/numbers';
import { useLocalStorage } from '@mantine/hooks';
import type { Session } from '@tempera/contract/team';
import type { MassTrace } from '@tempera/core/capture';
import { standingFacts, type CorrectionBody, type FactOf, type ShotBody } from '@tempera/core/facts';
import { useEffect, useState } from 'react';
import { v7 as uuidv7 } from 'uuid';
import { usePull, type LivePull, type ScaleMishap } from '../capture/index.ts';
import { useOpeningInHand, useUsedG } from '../bar/index.ts';
import { checkDue } from '@tempera/core/bar';
import { shotMiss } from '@tempera/core/calibration';
import { houseAsks, stopWord } from '../house/index.ts';
import { useWriteFacts } from '../kernel/facts.tsx';
import { useShortcuts } from '../kernel/shortcuts.ts';
import { useNow } from '../ui/useNow.ts';
import { AdvicePanel } from './AdvicePanel.tsx';
import classes from './Bench.module.css';
import { BenchDialogs, type BenchDialog } from './BenchDialogs.tsx';
import { BenchHead } from './BenchHead.tsx';
import {
  handShot,
  lockFact,
  lockHereFact,
  moveFacts,
  recordedShot,
  shotFact,
  shotOfPull,
  type HandNumbers,
} from './benchFacts.ts';
import { checkStepOf, instructionOf, stepOf } from './benchStep.ts';
import { CheckNote } from './CheckNote.tsx';
import { DialStrip } from './DialStrip.tsx';
import { DosePanel, WeighedDose } from './DosePanel.tsx';
import { LockedNote } from './LockedNote.tsx';
import { LivePullPanel, type Measuring } from './PullPanel.tsx';
import { ShotList } from './ShotList.tsx';
import { ShotSign } from './ShotSign.tsx';
import { Slip } from './Slip.tsx';
import { memoryWith } from './barMemory.ts';
import { checksOf, type BenchView } from './useBench.ts';
import { useDevices, type Simulated } from './useDevices.ts';
import { viewBench } from './viewBench.ts';
import { useStopping } from './useStopping.ts';

/** One grinder dialled in on one group: weigh, pull, read, turn; until it holds. */
export function Bench({
  view,
  session,
  demo,
  check,
}: {
  view: BenchView;
  session: Session;
  demo: Simulated | null;
  /** Shots check the group at the setting that holds; the grinder is not dialled in. */
  check: boolean;
}) {
  const { grinder, group, state, dose } = view;
  const { recipe } = grinder;
  const nowMs = useNow();
  const write = useWriteFacts();
  const opening = useOpeningInHand(nowMs);
  const devices = useDevices(view, session.site.id, demo);
  const pull = usePull(grinder.id, devices);
  const [measuring, setMeasuring] = useLocalStorage<Measuring>({ key: 'tempera.measuring', defaultValue: 'scale' });
  const [editing, setEditing] = useState<FactOf<'shot'> | null>(null);
  const [dialog, setDialog] = useState<BenchDialog | null>(null);
  const [weighAgain, setWeighAgain] = useState(false);
  // Passed over until the next shot: the advice stays in view, and the pull is free.
  const [passedOverAt, setPassedOverAt] = useState<number | null>(null);
  const [mishap, setMishap] = useLocalStorage<ScaleMishap | null>({ key: 'tempera.mishap', defaultValue: null });

  const { live } = pull;
  const written = live !== null && view.facts.some((fact) => fact.id === live.draft.id);
  const byScale = live !== null && live.draft.byScale && !live.lost;
  const provisional = live?.draft.stoppedAtS != null && byScale && !written ? shotOfPull(view, live) : null;
  // While the last drops fall the advice is already there, from the yield that they will make.
  const { advice } = provisional && live && !check ? withShot(view, live, provisional) : view;
  const checks = checksOf(view);
  const [checksBefore] = useState(checks.length);
  const checked = checks.length > checksBefore;
  const lastShot = (check ? checks : state.shots).at(-1) ?? null;
  const slip = provisional ?? lastShot?.body ?? null;
  const doseWaits = dose !== null && !weighAgain;
  const pulling = live?.draft.stoppedAtS == null ? 'running' : byScale ? 'dripping' : 'typing';
  const dueAt = checkDue(state.lastLock, state.newBagAtMs, opening);
  const due = dueAt !== null && nowMs >= dueAt.atMs;
  const pullNow = pull.pulling ? pulling : 'none';
  const step = check
    ? checkStepOf(pullNow, doseWaits, checked)
    : stepOf({ pull: pullNow, doseWaits, state, advice, due, passedOver: passedOverAt === state.shots.length });
  const stopping = useStopping(view);
  const { drip, stopsAtCount, band } = stopping;
  // Between two marks the dose takes up the rest: what is weighed next may differ from the recipe.
  const asked = { ...recipe, doseG: view.advice.doseG ?? recipe.doseG };
  const timed = view.house.dosing === 'timed';
  const grindTimeS = timed ? state.grindTimeS(advice.doseG ?? recipe.doseG, advice.setting) : null;

  useEffect(() => {
    if (!live || !live.settled || !byScale) return;
    if (!written) write([shotFact(grinder.id, live, shotOfPull(view, live))]);
    pull.end();
  }, [live, byScale, written, write, grinder.id, view, pull]);

  const usedG = useUsedG(session.site, nowMs, grinder.id);

  const startOrStop = (): void => {
    if (live && live.draft.stoppedAtS === null) {
      performance.mark('shot-stopped');
      pull.stop();
    } else if (!pull.pulling && doseWaits) {
      const now = Date.now();
      pull.start({
        id: uuidv7({ msecs: now }),
        startedAtMs: now,
        stoppedAtS: null,
        doseG: dose.body.doseG,
        groupId: group.id,
        setting: state.setting,
        byScale: devices !== null && measuring === 'scale',
        check,
        stopsAtCount,
        mishap: demo === null ? null : mishap,
        ...(demo?.seed == null ? {} : { draw: `${demo.seed} ${grinder.id} ${view.facts.length}` }),
      });
    }
  };
  const keepRecording = (trace: MassTrace): boolean => {
    const body = dose && recordedShot(view, { setting: state.setting, doseG: dose.body.doseG, check }, trace);
    if (!body) return false;
    write([{ kind: 'shot', grinderId: grinder.id, groupId: group.id, body }]);
    return true;
  };
  const act = (): void => {
    if (advice.action === 'lock') write([lockFact(view, advice)]);
    else
      write(
        moveFacts(view, { from: advice.from, to: advice.setting, advisedTo: advice.setting, purgeG: advice.purgeG }),
      );
  };
  const keepHandShot = (numbers: HandNumbers): void => {
    if (!live) return;
    write([shotFact(grinder.id, live, handShot(view, live, numbers))]);
    pull.end();
  };
  const correct = (shot: FactOf<'shot'>, body: CorrectionBody): void => {
    write([{ kind: 'correction', grinderId: grinder.id, groupId: shot.groupId, body }]);
    setEditing(null);
  };
  useShortcuts({ ' ': startOrStop, d: () => step === 'act' && act(), w: () => !check && setDialog('why') });

  // With hands on the grinder nobody weighs: the slip takes the place of the dose, and all of the advice stays in view.
  const acting = !check && (step === 'act' || step === 'dripping') && slip !== null;
  const slipSheet = slip && (
    <Slip
      shot={slip}
      recipe={recipe}
      number={(check ? checks : state.shots).length + (provisional ? 1 : 0)}
      dripping={provisional !== null}
      onEdit={provisional || !lastShot ? null : () => setEditing(lastShot)}
      target={view.target}
      asks={houseAsks(
        view.house,
        { yieldG: slip.yieldG, timeS: shotMiss(slip, view.target).normalisedS },
        recipe,
        state.shots.length,
      )}
    />
  );

  return (
    <div className={classes.bench}>
      <BenchHead
        view={view}
        onNewBag={pull.pulling ? null : () => setDialog('bag')}
        check={check}
        opening={opening !== null}
        usedG={usedG}
        instruction={instructionOf(step, advice, asked, stopWord(view.house, recipe, drip.meanG))}
      />
      <div className={classes.columns} data-step={step}>
        <div className={`sheet ${classes.dose}`} data-current={step === 'dose'}>
          {!acting && <DialStrip grinder={grinder} from={state.setting} to={state.setting} />}
          {acting ? (
            slipSheet
          ) : doseWaits || pull.pulling ? (
            <WeighedDose
              recipe={asked}
              doseG={live?.draft.doseG ?? dose?.body.doseG ?? 0}
              onAgain={pull.pulling ? null : () => setWeighAgain(true)}
            />
          ) : (
            <DosePanel
              key={`${state.setting} ${state.shots.length}`}
              recipe={asked}
              basketG={grinder.basketG}
              way={view.house.dosing}
              grindTimeS={state.grindTimeS(asked.doseG, state.setting) ?? firstGrindTimeS(view)}
              devices={devices}
              current={step === 'dose'}
              onKeep={(kept) => {
                setWeighAgain(false);
                write([
                  { kind: 'dose', grinderId: grinder.id, groupId: group.id, body: { setting: state.setting, ...kept } },
                ]);
              }}
            />
          )}
        </div>
        <div
          className={`sheet ${classes.pull}`}
          data-current={['ready', 'pulling', 'dripping', 'typing'].includes(step)}
        >
          <LivePullPanel
            recipe={recipe}
            now={pull.now}
            stopping={stopping}
            resting={lastShot?.body.trace ? { ...lastShot.body, trace: lastShot.body.trace } : null}
            ready={step === 'ready'}
            doseG={dose?.body.doseG ?? null}
            measuring={devices ? measuring : 'hand'}
            deviceName={devices?.name ?? null}
            onMeasuring={setMeasuring}
            onPull={startOrStop}
            onByHand={keepHandShot}
            onDiscard={pull.end}
            onRecording={keepRecording}
            mishap={demo === null ? undefined : mishap}
            onMishap={setMishap}
          />
        </div>
        <div className={`sheet ${classes.advice}`} data-current={['act', 'locked', 'checked'].includes(step)}>
          {lastShot && !provisional && (
            <ShotSign
              good={stopping.start}
              shot={lastShot.body}
              onFlaw={(flaw) => correct(lastShot, { factId: lastShot.id, withdrawn: false, shot: { flaw } })}
            />
          )}
          {check ? (
            <CheckNote group={group.name} pulled={checked} />
          ) : state.lastLock && state.shots.length === 0 && !provisional && advice.action !== 'move' ? (
            <LockedNote lock={state.lastLock} due={dueAt} grinder={grinder} timeZone={session.site.timeZone} />
          ) : (
            <AdvicePanel
              advice={advice}
              grinder={grinder}
              grindTimeS={grindTimeS}
              open={step === 'act'}
              idle={!pull.pulling}
              onDo={act}
              onCloseEnough={() => write([lockHereFact(view, advice)])}
              onElse={() => setDialog('else')}
              onWhy={() => setDialog('why')}
            />
          )}
          {!acting && slipSheet}
        </div>
      </div>
      <ShotList shots={check ? checks : state.shots} recipe={recipe} onEdit={setEditing} />
      <BenchDialogs
        view={view}
        open={dialog}
        editing={editing}
        band={band}
        timeZone={session.site.timeZone}
        onClose={() => {
          setDialog(null);
          setEditing(null);
        }}
        onAgain={() => {
          setPassedOverAt(state.shots.length);
          setDialog(null);
        }}
        onCorrect={correct}
      />
    </div>
  );
}

/** The advice as it would be with one more shot. */
function withShot(view: BenchView, live: LivePull, body: ShotBody): Pick<BenchView, 'advice'> {
  const { id, groupId, startedAtMs } = live.draft;
  const at = new Date(startedAtMs).toISOString();
  const shot = { id, kind: 'shot' as const, at, personId: '', grinderId: view.grinder.id, groupId, body };
  const standing = standingFacts([...view.standing, shot]);
  return viewBench(view.grinder, standing, view.house, startedAtMs, memoryWith(view.memory, view.bar, shot));
}

/** A first grind time from the believed rate, before any dose was weighed. */
function firstGrindTimeS({ grinder }: BenchView): number {
  return Math.round((10 * grinder.recipe.doseG) / (grinder.rateGps ?? usual.grindRateGps)) / 10;
}
