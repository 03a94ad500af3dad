import { Button, Modal, Stack, Text } from '@mantine/core';
import type { Grinder } from '@tempera/contract/bar';
import { limits, parseNumber } from '@tempera/core/house';
import { useState } from 'react';
import { NumberField, readQuantity } from '../ui/NumberField.tsx';
import { dialNumber, percent } from '../kernel/format.ts';

interface Props {
  grinder: Grinder;
  setting: number;
  /** Chance that it holds where it stands; null: no shot was pulled there yet, and nothing is to be locked. */
  chance: number | null;
  onClose: () => void;
  /** One more shot where it stands, whatever is advised. */
  onAgain: () => void;
  /** It is locked where it stands, with its chance. */
  onLockHere: () => void;
  onSave: (done: { setting: number; purgeG: number }) => void;
}

/** Instead of the advice: one more shot, a lock as close enough, or where the collar stands now and what was purged. */
export function SomethingElse({ grinder, setting, chance, onClose, onAgain, onLockHere, onSave }: Props) {
  const [dialText, setDialText] = useState(dialNumber(setting));
  const [purgeText, setPurgeText] = useState('0');
  const dial = parseNumber(dialText);
  const onDial = dial !== null && dial >= grinder.dialMin && dial <= grinder.dialMax;
  const purge = readQuantity(purgeText, 'purgeG');
  return (
    <Modal opened onClose={onClose} title="Something else" centered>
      <Stack>
        <Button size="lg" variant="default" onClick={onAgain}>
          Pull again at {dialNumber(setting)}
        </Button>
        {chance !== null && (
          <Button size="lg" variant="default" onClick={onLockHere}>
            Close enough: lock at {dialNumber(setting)} ({percent(chance)})
          </Button>
        )}
        <Text>Or write down what was turned:</Text>
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
