import { Button } from '@mantine/core';
import { chamberFilledMs } from '@tempera/core/day';
import { useUsedG } from '../bar/index.ts';
import { stopWord } from '../house/index.ts';
import { useShortcuts } from '../kernel/shortcuts.ts';
import { useStaged } from '../ui/useStaged.ts';
import { AdvicePanel } from './AdvicePanel.tsx';
import classes from './Bench.module.css';
import { BenchDialogs } from './BenchDialogs.tsx';
import { BenchHead } from './BenchHead.tsx';
import { BenchPull } from './BenchPull.tsx';
import { instructionOf, type Step } from './benchStep.ts';
import { CheckNote } from './CheckNote.tsx';
import { DialStrip } from './DialStrip.tsx';
import { DosePanel, WaitingDose } from './DosePanel.tsx';
import { dialingWay } from './doseWords.ts';
import { ChamberAtBench } from './InChamber.tsx';
import { LockedNote } from './LockedNote.tsx';
import { ShotList } from './ShotList.tsx';
import { ShotSign } from './ShotSign.tsx';
import { Slip } from './Slip.tsx';
import { useBenchRound, type BenchRound, type BenchStand } from './useBenchRound.ts';

type BenchColumn = 'dose' | 'pull' | 'advice';
/** The head with what to do, and the three columns below it. */
const PARTS = 4;

/** The columns in the order they are drawn: what the next hand goes to comes first. */
function drawnFirst(step: Step): BenchColumn[] {
  if (step === 'dose') return ['dose', 'advice', 'pull'];
  return ['act', 'locked', 'checked'].includes(step) ? ['advice', 'dose', 'pull'] : ['pull', 'dose', 'advice'];
}

/** One grinder dialled in on one group: weigh, pull, read, turn; until it holds. */
export function Bench(stand: BenchStand) {
  const { view, session, check } = stand;
  const round = useBenchRound(stand);
  const { grinder, house } = view;
  const { screen, send, advice, stopping } = round;
  const { step } = screen;
  useShortcuts({
    ' ': round.startOrStop,
    d: () => step === 'act' && round.doAdvice(),
    e: () => screen.free && send({ kind: 'enters' }),
    w: () => !check && send({ kind: 'opened', dialog: 'why' }),
  });
  const usedG = useUsedG(session.site, round.nowMs, grinder.id);
  // With hands on the grinder nobody weighs: the slip takes the place of the dose, and all of the advice stays in view.
  const acting = !check && (step === 'act' || step === 'dripping') && round.slip !== null;
  const drawn = drawnFirst(step).slice(0, useStaged(PARTS) - 1);
  const instruction = instructionOf(
    step,
    advice,
    {
      doseG: round.askedG,
      weighs: ['scale', 'beans'].includes(dialingWay[house.dosing]),
      readsDial: grinder.readsDial,
    },
    stopWord(house, grinder.recipe, stopping.drip.meanG),
  );
  return (
    <div className={classes.bench}>
      <BenchHead
        view={view}
        onNewBag={screen.free ? () => send({ kind: 'opened', dialog: 'bag' }) : null}
        check={check}
        opening={round.opening !== null}
        usedG={usedG}
        instruction={instruction}
      />
      <div className={classes.columns} data-step={step}>
        <div className="sheet" data-current={step === 'dose'}>
          {drawn.includes('dose') && <DoseColumn stand={stand} round={round} acting={acting} />}
        </div>
        <div
          className={`sheet ${classes.pull}`}
          data-current={['ready', 'pulling', 'dripping', 'typing', 'forgotten', 'elsewhere'].includes(step)}
        >
          {drawn.includes('pull') && <BenchPull view={view} round={round} />}
        </div>
        <div className={`sheet ${classes.advice}`} data-current={['act', 'locked', 'checked'].includes(step)}>
          {drawn.includes('advice') && (
            <>
              <AdviceColumn stand={stand} round={round} />
              {!acting && <ShotSlip stand={stand} round={round} />}
            </>
          )}
        </div>
      </div>
      {drawn.length === PARTS - 1 && (
        <>
          <ShotList
            shots={round.shots}
            recipe={grinder.recipe}
            onEdit={({ id }) => send({ kind: 'edits', shotId: id })}
          />
          <BenchDialogs
            view={view}
            hands={round.hands}
            send={send}
            band={stopping.band}
            timeZone={session.site.timeZone}
          />
        </>
      )}
    </div>
  );
}

interface Part {
  stand: BenchStand;
  round: BenchRound;
}

/** Where the collar stands, and the dose: to be weighed or filled, waiting, or out of the way while hands are on the grinder. */
function DoseColumn({ stand, round, acting }: Part & { acting: boolean }) {
  const { grinder, house, state } = stand.view;
  const { screen, pull, dose, askedG, send } = round;
  const { live } = pull;
  const strip = grinder.readsDial && (
    <DialStrip
      grinder={grinder}
      from={state.setting}
      to={state.setting}
      heldAt={state.lastLock?.body.setting ?? null}
    />
  );
  if (acting) {
    return (
      <>
        <ShotSlip stand={stand} round={round} />
        {screen.free && (
          <Button
            variant="default"
            fullWidth
            mt="sm"
            onClick={() => send({ kind: 'passedOver', shots: state.shots.length })}
          >
            Weigh another dose
          </Button>
        )}
      </>
    );
  }
  if (dose || live) {
    return (
      <>
        {strip}
        <WaitingDose
          grinder={grinder}
          askedG={askedG}
          doseG={live?.draft.doseG ?? dose?.body.doseG ?? askedG}
          dose={dose}
          way={dose ? (dose.body.way ?? 'scale') : (live?.draft.doseWay ?? 'scale')}
          nextTimeS={round.nextTimeS}
          onAgain={screen.free ? () => send({ kind: 'weighsAgain' }) : null}
        />
      </>
    );
  }
  return (
    <>
      {strip}
      <ChamberAtBench grinder={grinder} standing={stand.view.standing} />
      <DosePanel
        key={`${state.setting} ${state.shots.length}`}
        grinder={grinder}
        askedG={askedG}
        dosing={house.dosing}
        grindTimeS={round.grindTimeS}
        devices={round.devices}
        current={screen.step === 'dose'}
        onKeep={round.keepDose}
      />
    </>
  );
}

/** What the engine makes of it: the sign of the trace, then the advice, the lock, or what a check is for. */
function AdviceColumn({ stand: { view, session, check }, round }: Part) {
  const { grinder, group, state, house } = view;
  const { advice, lastShot, provisional, screen, send } = round;
  const rests = state.lastLock && state.shots.length === 0 && !provisional && advice.action !== 'move';
  return (
    <>
      {lastShot && !provisional && (
        <ShotSign good={round.stopping.start} shot={lastShot.body} onFlaw={(flaw) => round.markFlaw(lastShot, flaw)} />
      )}
      {check ? (
        <CheckNote group={group.name} pulled={round.checked} />
      ) : state.lastLock && rests ? (
        <LockedNote
          lock={state.lastLock}
          standsAt={state.setting}
          due={round.dueAt}
          grinder={grinder}
          forOther={view.station.otherRecipes?.has(state.lastLock.body.recipeVersionId) ?? false}
          timeZone={session.site.timeZone}
          onElse={() => send({ kind: 'opened', dialog: 'turn' })}
        />
      ) : (
        <AdvicePanel
          advice={advice}
          grinder={grinder}
          house={house}
          grindTimeS={round.advisedTimeS}
          chamberWaits={chamberFilledMs(view.standing, grinder.id) !== null}
          open={screen.step === 'act'}
          idle={screen.free}
          onDo={round.doAdvice}
          onCloseEnough={round.lockHere}
          onElse={() => send({ kind: 'opened', dialog: 'turn' })}
          onWhy={() => send({ kind: 'opened', dialog: 'why' })}
        />
      )}
    </>
  );
}

/** The newest shot on its slip. */
function ShotSlip({ stand: { view }, round }: Part) {
  const { slip, provisional, lastShot, shots, send } = round;
  if (!slip) return null;
  return (
    <Slip
      shot={slip}
      recipe={view.grinder.recipe}
      number={shots.length + (provisional ? 1 : 0)}
      dripping={provisional !== null}
      onEdit={provisional || !lastShot ? null : () => send({ kind: 'edits', shotId: lastShot.id })}
      target={view.target}
      asks={round.slipAsks ?? []}
    />
  );
}
