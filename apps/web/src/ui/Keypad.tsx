import { Button } from '@mantine/core';
import { IconBackspace } from '@tabler/icons-react';
import classes from './Keypad.module.css';

interface Props {
  /** Steps beside the digits, in the shown unit: a tenth and one, say. */
  steps: readonly [small: number, large: number];
  onDigit: (digit: string) => void;
  onBack: () => void;
  onStep: (by: number) => void;
}

const rows = [
  ['1', '2', '3'],
  ['4', '5', '6'],
  ['7', '8', '9'],
] as const;

/** A keypad for wet hands: the last digits are the decimals, so no point is tapped; steps stand at its right. */
export function Keypad({ steps: [small, large], onDigit, onBack, onStep }: Props) {
  const digit = (key: string) => (
    <Button key={key} variant="default" className={classes.key} tabIndex={-1} onClick={() => onDigit(key)}>
      {key}
    </Button>
  );
  const step = (by: number) => (
    <Button
      key={`step ${by}`}
      variant="default"
      className={`${classes.key} ${classes.step}`}
      tabIndex={-1}
      aria-label={`${by > 0 ? 'More' : 'Less'} by ${Math.abs(by)}`}
      onClick={() => onStep(by)}
    >
      {by > 0 ? '+' : '−'}
      {Math.abs(by)}
    </Button>
  );
  const right = [large, small, -small];
  return (
    <div className={classes.pad} role="group" aria-label="Keypad">
      {rows.flatMap((keys, i) => [...keys.map(digit), step(right[i] ?? 0)])}
      <Button variant="default" className={classes.key} tabIndex={-1} aria-label="Take one back" onClick={onBack}>
        <IconBackspace />
      </Button>
      {digit('0')}
      <span />
      {step(-large)}
    </div>
  );
}
