import { Button, Stack, Text, Title } from '@mantine/core';
import type { Grinder } from '@tempera/contract/bar';
import type { Advice } from '@tempera/core/calibration';
import type { ServicePolicy } from '@tempera/core/house';
import { useEffect, type ReactNode } from 'react';
import { BandRow } from '../ui/BandRow.tsx';
import { dialNumber, grams, marks, percent, seconds } from '../kernel/format.ts';
import { Caution } from '../ui/Notice.tsx';
import classes from './AdvicePanel.module.css';
import { DialStrip } from './DialStrip.tsx';
import { emptyFirstWord } from './InChamber.tsx';
import { purgeWord } from './purgeWords.ts';
import { judgementTitle, reasonSaid } from '../ui/adviceWords.ts';

interface Props {
  advice: Advice;
  grinder: Grinder;
  house: Pick<ServicePolicy, 'burrsRun' | 'purgeCount'>;
  /** Grind time for the recipe's dose at the advised setting; null when no dose was weighed yet. */
  grindTimeS: number | null;
  /** Whether ground coffee waits in its chamber. */
  chamberWaits: boolean;
  /** Whether the advice waits for hands on the grinder. */
  open: boolean;
  /** Whether something may be written down at all: not while a shot runs. */
  idle: boolean;
  onDo: () => void;
  /** Nothing in reach does better: somebody stops, and its chance is written down. */
  onCloseEnough: () => void;
  onElse: () => void;
  onWhy: () => void;
}

/** What to do, how sure that is, and why. */
export function AdvicePanel(props: Props) {
  const { advice, grinder, open, idle, onDo, onCloseEnough, onElse, onWhy } = props;
  const { recipe } = grinder;
  const { predicted, action } = advice;
  useEffect(() => {
    // The figure in the notes: from the stop of the pump to the advice on screen.
    if (performance.getEntriesByName('shot-stopped').length === 0) return;
    performance.measure('stop-to-advice', 'shot-stopped');
    performance.clearMarks('shot-stopped');
  }, [advice]);
  return (
    <Stack component="section" aria-label="Advice" gap="sm">
      <Title order={2} size="h2">
        {judgementTitle(advice)}
      </Title>
      {action === 'move' && grinder.readsDial && <DialStrip grinder={grinder} from={advice.from} to={advice.setting} />}
      <Steps {...props} />
      {idle && (
        <div className={classes.buttons}>
          {open && (
            <Button size="lg" mih={60} onClick={onDo}>
              {action === 'lock'
                ? grinder.readsDial
                  ? `Lock at ${dialNumber(advice.setting)}`
                  : 'Lock it here'
                : 'Do it'}
            </Button>
          )}
          {!open && advice.closeEnough !== null && (
            <Button variant="default" mih={60} onClick={onCloseEnough}>
              Close enough: lock {grinder.readsDial ? `at ${dialNumber(advice.from)}` : 'it here'} (
              {percent(advice.closeEnough)})
            </Button>
          )}
          <Button variant="default" px="xs" mih={open ? 60 : 48} onClick={onElse}>
            Something else
          </Button>
        </div>
      )}
      <div>
        <BandRow
          name="Expected"
          value={predicted.timeS}
          shown={seconds(predicted.timeS)}
          window={{ low: recipe.timeMinS, high: recipe.timeMaxS }}
          doubt={{ low: predicted.lowS, high: predicted.highS }}
          unit="s"
        />
        <Text className="faint">
          {percent(predicted.inWindow)} likely to hold the window; eight shots in ten fall within{' '}
          {seconds(predicted.lowS)} to {seconds(predicted.highS)}.
        </Text>
      </div>
      <ul className={classes.reasons} aria-label="Reasons">
        {worthSaying(advice).map((reason) => (
          <li key={reason}>{reason}</li>
        ))}
      </ul>
      <Button variant="subtle" color="umber" className={classes.why} onClick={onWhy}>
        Why, and what else would do
      </Button>
      {advice.direction === 'finer' && <Caution>Unplug before a hand or tool goes near the burrs.</Caution>}
    </Stack>
  );
}

/** The title has said how the shot fell; the drawer has all of the reasons. */
function worthSaying({ judgement, reasons }: Advice): string[] {
  const MOST = 2;
  const worth = judgement.kind === 'sound' ? reasons.slice(1, 1 + MOST) : reasons.slice(0, MOST);
  return worth.map(reasonSaid);
}

/** The move as the hands do it, one line a step. */
function Steps({ advice, grinder, house, grindTimeS, chamberWaits }: Props) {
  const steps: ReactNode[] = [];
  if (advice.action === 'move') {
    const running = advice.direction === 'finer' || house.burrsRun === 'always';
    steps.push(
      <>
        {grinder.unlocksFirst ? 'Unlock the collar, turn ' : 'Collar '}
        <b>{marks(advice.marks)}</b> {advice.direction}
        {running ? ', with the burrs turning' : ''}
        {grinder.unlocksFirst ? ', and lock it again' : ''}
      </>,
    );
  }
  if (advice.action === 'move' && chamberWaits) steps.push(emptyFirstWord);
  if (advice.purgeG > 0) {
    steps.push(
      <>
        Purge <b>{purgeWord(advice.purgeG, house.purgeCount, grinder)}</b>
      </>,
    );
  }
  if (advice.doseG !== null && advice.action !== 'dose') {
    steps.push(
      <>
        Weigh <b>{grams(advice.doseG)}</b> {advice.action === 'lock' ? 'from now on' : 'for the next shot'}
      </>,
    );
  }
  if (grindTimeS !== null && (advice.action === 'move' || advice.action === 'dose')) {
    steps.push(
      <>
        Grind time <b>{seconds(grindTimeS)}</b> for {grams(advice.doseG ?? grinder.recipe.doseG)}
      </>,
    );
  }
  if (steps.length === 0) return null;
  return (
    <ol className={classes.steps}>
      {steps.map((step, i) => (
        <li key={i}>{step}</li>
      ))}
    </ol>
  );
}
