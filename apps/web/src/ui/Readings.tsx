import { ActionIcon, Button } from '@mantine/core';
import { limits, type Quantity } from '@tempera/core/house';
import { IconX } from '@tabler/icons-react';
import { useState } from 'react';
import { grams } from '../kernel/format.ts';
import { NumberField, readQuantity } from './NumberField.tsx';
import classes from './Readings.module.css';

interface Props {
  label: string;
  quantity: Extract<Quantity, 'doseG' | 'yieldG'>;
  /** What is near this is usual. */
  near: number;
  values: readonly number[];
  onValues: (values: number[]) => void;
}

/** A handful of weighings, typed one after the other; a wrong one is taken off. */
export function Readings({ label, quantity, near, values, onValues }: Props) {
  const [text, setText] = useState('');
  const reading = readQuantity(text, quantity, near);
  const add = (): void => {
    if (!reading.ok) return;
    onValues([...values, reading.value]);
    setText('');
  };
  return (
    <form
      className={classes.readings}
      onSubmit={(event) => {
        event.preventDefault();
        add();
      }}
    >
      <NumberField
        label={`${label} ${values.length + 1}`}
        unit="g"
        step={limits[quantity].step}
        text={text}
        onText={setText}
        error={text !== '' && !reading.ok ? reading.error : null}
        warning={text !== '' && reading.ok ? reading.warning : null}
      />
      <Button type="submit" variant="default" disabled={!reading.ok}>
        Write it down
      </Button>
      <ol className={classes.list} aria-label={`${label}s so far`}>
        {values.map((value, i) => (
          <li key={i}>
            <span className="number">{grams(value)}</span>
            <ActionIcon
              aria-label={`Take ${label.toLowerCase()} ${i + 1} off`}
              onClick={() => onValues(values.filter((_, j) => j !== i))}
            >
              <IconX />
            </ActionIcon>
          </li>
        ))}
      </ol>
    </form>
  );
}
