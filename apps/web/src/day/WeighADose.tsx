import { Button, Group, Text } from '@mantine/core';
import { FLOAT_DUST } from '@tempera/core/numbers';
import { useState, type SubmitEvent } from 'react';
import { useWriteFacts, useWriteStep } from '../kernel/facts.tsx';
import { grams, seconds } from '../kernel/format.ts';
import { NumberField, readQuantity } from '../ui/NumberField.tsx';
import classes from './Day.module.css';
import type { DayStation } from './useDay.ts';

/** One dose on the scale: inside its tolerance, or the new grind time at once. */
export function WeighADose({ station, onDone }: { station: DayStation; onDone: () => void }) {
  const { grinder, state, doseG, grindTimeS } = station;
  const { doseToleranceG } = grinder.recipe;
  const writeFacts = useWriteFacts();
  const writeStep = useWriteStep();
  const [text, setText] = useState('');
  const [weighedG, setWeighedG] = useState<number | null>(null);
  const read = readQuantity(text, 'doseG', doseG);
  const keep = (event: SubmitEvent): void => {
    event.preventDefault();
    if (!read.ok) return;
    const at = { grinderId: grinder.id, groupId: null };
    writeFacts([
      {
        kind: 'dose',
        ...at,
        body: { setting: state.setting, doseG: read.value, grindTimeS, measuredBy: 'hand', way: 'scale' },
      },
    ]);
    setWeighedG(read.value);
  };
  if (weighedG === null) {
    return (
      <form onSubmit={keep} className={classes.timing}>
        <NumberField
          label="In the basket"
          unit="g"
          step={0.1}
          aim={doseG}
          text={text}
          onText={setText}
          error={text === '' || read.ok ? null : read.error}
          warning={read.ok ? read.warning : null}
        />
        <Group gap={8}>
          <Button type="submit" mih={48} className={classes.hand} disabled={!read.ok}>
            Keep it
          </Button>
          <Button mih={48} variant="subtle" color="umber" onClick={onDone}>
            Not now
          </Button>
        </Group>
      </form>
    );
  }
  const offG = weighedG - doseG;
  const holds = Math.abs(offG) <= doseToleranceG + FLOAT_DUST;
  // The dose that was just written is heard already.
  const betterS = grindTimeS === null ? null : station.grindTimeFor(doseG, state.setting);
  return (
    <div role="status" className={classes.timing}>
      <Text>
        {holds
          ? `${grams(weighedG)} is inside ${grams(doseG)} give or take ${grams(doseToleranceG)}.`
          : `${grams(weighedG)} is ${grams(Math.abs(offG))} ${offG > 0 ? 'over' : 'under'}.`}
        {!holds && betterS !== null && grindTimeS !== null && (
          <>
            {' '}
            It was ground {seconds(grindTimeS)}: grind <strong>{seconds(betterS)}</strong>.
          </>
        )}
      </Text>
      <Group gap={8}>
        {!holds && betterS !== null && (
          <Button
            mih={48}
            onClick={() => {
              writeStep({ step: 'doseSet', grinderId: grinder.id, doseG, grindTimeS: betterS });
              onDone();
            }}
          >
            It is set to {seconds(betterS)}
          </Button>
        )}
        <Button mih={48} variant={holds ? 'filled' : 'default'} onClick={onDone}>
          {holds ? 'Good' : 'Leave it'}
        </Button>
      </Group>
    </div>
  );
}
