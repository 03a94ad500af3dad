import { Button, Stack, Text } from '@mantine/core';
import { Link } from 'react-router';
import classes from './PullPanel.module.css';

const SECONDS_PER_MINUTE = 60;

/** "2 min 14 s": a pull that went on for so long is not told in tenths. */
const longWord = (s: number): string =>
  `${Math.floor(s / SECONDS_PER_MINUTE)} min ${Math.round(s % SECONDS_PER_MINUTE)} s`;

interface ForgottenProps {
  elapsedS: number;
  /** It ran, and somebody has its numbers. */
  onType: () => void;
  onChoked: () => void;
  onRunsOn: () => void;
  onDiscard: () => void;
}

/** A pull that nobody stopped for minutes: what became of it. */
export function ForgottenPull({ elapsedS, onType, onChoked, onRunsOn, onDiscard }: ForgottenProps) {
  return (
    <Stack>
      <Text aria-live="polite">It has run for {longWord(elapsedS)}. Nothing is written until you say so.</Text>
      <div className={classes.answers}>
        <Button size="lg" onClick={onType}>
          It is in the cup: type its numbers
        </Button>
        <Button size="lg" variant="default" onClick={onChoked}>
          It choked: hardly anything came
        </Button>
        <Button size="lg" variant="default" onClick={onRunsOn}>
          It still runs
        </Button>
        <Button size="lg" variant="default" onClick={onDiscard}>
          It was none: throw it away
        </Button>
      </div>
    </Stack>
  );
}

interface ElsewhereProps {
  group: string;
  here: string;
  /** The bench of the group that it was started for. */
  backTo: string;
  onHere: () => void;
  onDiscard: () => void;
}

/** A pull that was started for another group than the one on screen. */
export function PullElsewhere({ group, here, backTo, onHere, onDiscard }: ElsewhereProps) {
  return (
    <Stack>
      <Text>
        It was started for {group}; this is the bench of {here}. Which group is it in?
      </Text>
      <div className={classes.answers}>
        <Button size="lg" component={Link} to={backTo}>
          It is in {group}: go there
        </Button>
        <Button size="lg" variant="default" onClick={onHere}>
          It is in {here}
        </Button>
        <Button size="lg" variant="default" onClick={onDiscard}>
          It was none: throw it away
        </Button>
      </div>
    </Stack>
  );
}
