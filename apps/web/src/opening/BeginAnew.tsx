import { Button, Group, Modal, Stack, Text } from '@mantine/core';
import type { Session } from '@tempera/contract/team';
import type { StepOf } from '@tempera/core/facts';
import { runBefore } from '@tempera/core/opening';
import { useState } from 'react';
import { useWriteStep } from '../kernel/facts.tsx';
import { clock } from '../kernel/format.ts';
import type { MorningView } from './useMorning.ts';
import { runName } from '../journal/index.ts';

interface BeginAnewProps {
  view: MorningView;
  session: Session;
  /** What the run in hand was planned for; null where another is being planned. */
  planned: StepOf<'planned'> | null;
  onDone: () => void;
}

/** The ways out of planning: leave the run as it is; for a head barista, begin it anew, or take that back. */
export function BeginAnew({ view, session, planned, onDone }: BeginAnewProps) {
  const write = useWriteStep();
  const [asking, setAsking] = useState(false);
  const before = runBefore(view.facts, view.nowMs);
  const { timeZone } = session.site;
  const head = session.person.role === 'head';
  const over = view.states.filter(({ standing }) => standing === 'done' || standing === 'skipped').length;
  return (
    <Group mt="sm">
      <Button variant="default" size="lg" onClick={onDone}>
        Leave it as it is
      </Button>
      {head && planned && (
        <Button variant="subtle" color="umber" size="lg" onClick={() => setAsking(true)}>
          Begin it anew
        </Button>
      )}
      {head && before && (
        <Button
          variant="subtle"
          color="umber"
          size="lg"
          onClick={() => {
            for (const takesBack of before.plannedIds)
              write({ step: 'takenBack', machineId: null, readings: [], takesBack });
            onDone();
          }}
        >
          Back to the one begun at {clock(before.fromMs, timeZone)}
        </Button>
      )}
      <Modal
        opened={asking}
        onClose={() => setAsking(false)}
        title={`Begin ${runName[view.morning.run]} anew?`}
        centered
      >
        <Stack>
          <Text>
            {over === 0
              ? 'Nothing of it is done yet.'
              : `What is done (${over} of ${view.states.length}) will be asked again.`}{' '}
            Nothing is deleted: the journal keeps it all, and you can go back to this one under Change.
          </Text>
          <Button
            size="lg"
            onClick={() => {
              if (planned) write({ ...planned, from: new Date().toISOString() });
              onDone();
            }}
          >
            Begin anew
          </Button>
          <Button size="lg" variant="default" onClick={() => setAsking(false)}>
            No, go on with it
          </Button>
        </Stack>
      </Modal>
    </Group>
  );
}
