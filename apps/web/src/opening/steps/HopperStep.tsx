import { Button, Group, Stack, Text } from '@mantine/core';
import { NewBag, useHopper, useStock } from '../../coffee/index.ts';
import { useWriteFacts } from '../../kernel/facts.tsx';
import { dayWord } from '../../kernel/format.ts';
import { closedBefore } from '@tempera/core/opening';
import { useState } from 'react';
import { Warn } from './Warn.tsx';
import type { StepProps } from './stepProps.ts';

/** The roast day of the bag that the closing wants this hopper to begin with; null where it said nothing, or the bag is in. */
function useChosenLastNight({ facts, morning }: StepProps['view'], grinderId: string): string | null {
  const { data: stock } = useStock();
  const bags = closedBefore(facts, morning.fromMs)?.tomorrow?.bags;
  const bagId = bags?.find((one) => one.grinderId === grinderId)?.bagId;
  const bag = stock?.bags.find(({ id }) => id === bagId);
  return bag && bag.state !== 'hopper' ? bag.sheet.roastedOn : null;
}

/** Which bag goes in, and how fresh it is. */
export function HopperStep({ state, view, session, write }: StepProps) {
  const [choosing, setChoosing] = useState(false);
  const writeFacts = useWriteFacts();
  const grinderId = state.job.stationId ?? '';
  const grinder = view.bar.grinders.find(({ id }) => id === grinderId);
  const hopper = useHopper(grinder?.id ?? '', grinder?.coffeeId ?? '', session.site.timeZone, view.nowMs);
  const chosen = useChosenLastNight(view, grinderId);
  if (!grinder) return null;
  const other = hopper.now?.past === true || chosen !== null;
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
      {chosen && <Text>Last night it was decided to begin with the bag roasted {dayWord(chosen)}.</Text>}
      <Group>
        <Button size="xl" variant={other ? 'default' : 'filled'} onClick={() => write({ step: 'hopper', grinderId })}>
          The same goes on
        </Button>
        <Button size="xl" variant={other ? 'filled' : 'default'} onClick={() => setChoosing(true)}>
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
