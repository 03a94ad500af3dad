import { Button, Modal, Stack, Text, TextInput } from '@mantine/core';
import type { Grinder } from '@tempera/contract/bar';
import { useState } from 'react';

interface Props {
  grinder: Grinder;
  onClose: () => void;
  /** @param roastedOn YYYY-MM-DD, or null when the bag says nothing */
  onSave: (roastedOn: string | null) => void;
}

/** Another bag in the hopper: two taps, and the day of its roast when it is at hand. */
export function NewBag({ grinder, onClose, onSave }: Props) {
  const [roastedOn, setRoastedOn] = useState('');
  return (
    <Modal opened onClose={onClose} title={`Another bag in ${grinder.name}`} centered>
      <Stack>
        <Text>A new bag is another bed, of the same coffee too: the next shot is a check.</Text>
        <TextInput
          type="date"
          label="Roasted on (if it says so)"
          size="lg"
          value={roastedOn}
          onChange={(event) => setRoastedOn(event.currentTarget.value)}
        />
        <Button size="lg" onClick={() => onSave(roastedOn === '' ? null : roastedOn)}>
          It is in the hopper
        </Button>
      </Stack>
    </Modal>
  );
}
