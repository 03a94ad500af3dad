import { Button, Group, Stack, Text } from '@mantine/core';
import { NewBag, useHopper } from '../../coffee/index.ts';
import { useWriteFacts } from '../../kernel/facts.tsx';
import { dayWord } from '../../kernel/format.ts';
import { useState } from 'react';
import { Warn } from './Warn.tsx';
import type { StepProps } from './stepProps.ts';

/** Which bag goes in, and how fresh it is. */
export function HopperStep({ state, view, session, write }: StepProps) {
  const [choosing, setChoosing] = useState(false);
  const writeFacts = useWriteFacts();
  const grinderId = state.job.stationId ?? '';
  const grinder = view.bar.grinders.find(({ id }) => id === grinderId);
  const hopper = useHopper(grinder?.id ?? '', grinder?.coffeeId ?? '', session.site.timeZone, view.nowMs);
  if (!grinder) return null;
  return (
    <Stack>
      {hopper.now ? (
        <Text size="lg">
          In it: {hopper.now.coffee}, roasted {dayWord(hopper.now.roastedOn)}: <strong>{hopper.now.word}</strong>
        </Text>
      ) : (
        <Text size="lg">Nobody wrote down which bag of {grinder.coffee} was in it.</Text>
      )}
      {hopper.now?.past && <Warn>It is past its days. Take the next bag.</Warn>}
      {hopper.next && (
        <Text>
          Next in line: roasted {dayWord(hopper.next.roastedOn)}, {hopper.next.word}.
        </Text>
      )}
      <Group>
        <Button
          size="xl"
          variant={hopper.now?.past ? 'default' : 'filled'}
          onClick={() => write({ step: 'hopper', grinderId })}
        >
          The same goes on
        </Button>
        <Button size="xl" variant={hopper.now?.past ? 'filled' : 'default'} onClick={() => setChoosing(true)}>
          Another bag
        </Button>
      </Group>
      {choosing && (
        <NewBag
          grinder={grinder}
          timeZone={session.site.timeZone}
          onClose={() => setChoosing(false)}
          onSave={(body) => {
            writeFacts([{ kind: 'newBag', grinderId, groupId: null, body }]);
            setChoosing(false);
          }}
        />
      )}
    </Stack>
  );
}
