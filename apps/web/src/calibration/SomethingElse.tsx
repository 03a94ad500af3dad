import { Button, Modal, Stack, Text } from '@mantine/core';
import type { Grinder } from '@tempera/contract/bar';
import { limits, parseNumber } from '@tempera/core/house';
import { useState } from 'react';
import { NumberField, readQuantity } from '../ui/NumberField.tsx';
import { dialNumber } from '../kernel/format.ts';

interface Props {
  grinder: Grinder;
  setting: number;
  onClose: () => void;
  onSave: (done: { setting: number; purgeG: number }) => void;
}

/** What was done instead of the advice: where the collar stands now, and what was purged. */
export function SomethingElse({ grinder, setting, onClose, onSave }: Props) {
  const [dialText, setDialText] = useState(dialNumber(setting));
  const [purgeText, setPurgeText] = useState('0');
  const dial = parseNumber(dialText);
  const onDial = dial !== null && dial >= grinder.dialMin && dial <= grinder.dialMax;
  const purge = readQuantity(purgeText, 'purgeG');
  return (
    <Modal opened onClose={onClose} title="What was done" centered>
      <Stack>
        <Text>Leave the dial as it is to go on without a move.</Text>
        <NumberField
          label="The dial now stands at"
          unit=""
          step={grinder.stepMarks}
          text={dialText}
          onText={setDialText}
          error={
            onDial
              ? null
              : `This dial runs from ${grinder.dialMin} to ${grinder.dialMax}. Type the number that the collar shows.`
          }
        />
        <NumberField
          label="Purged"
          unit="g"
          step={limits.purgeG.step}
          text={purgeText}
          onText={setPurgeText}
          error={purge.ok ? null : purge.error}
          warning={purge.ok ? purge.warning : null}
        />
        <Button
          size="lg"
          disabled={!onDial || !purge.ok}
          onClick={() => onDial && purge.ok && onSave({ setting: dial, purgeG: purge.value })}
        >
          Write it down
        </Button>
      </Stack>
    </Modal>
  );
}
