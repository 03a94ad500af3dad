import { Button, Group, Text } from '@mantine/core';
import { stepsOf, type Happening } from '@tempera/core/facts';
import { MS_PER_MINUTE } from '@tempera/core/numbers';
import { useStandingFacts } from '../bar/index.ts';
import { happeningWord } from '../journal/index.ts';
import { useWriteStep } from '../kernel/facts.tsx';
import { useNow } from '../ui/useNow.ts';

/** A slip of the finger is taken back for so long. */
const SLIP_MS = 5 * MS_PER_MINUTE;

/** What happened, in one tap; the engine is then less sure, and looks sooner. @param grinderId null: to the whole bar */
export function Happenings({
  grinderId,
  whats,
  label,
}: {
  grinderId: string | null;
  whats: readonly Happening[];
  label: string;
}) {
  const write = useWriteStep();
  const nowMs = useNow();
  const facts = useStandingFacts();
  const last = stepsOf(facts, 'happened').findLast(
    ({ at, body }) => body.grinderId === grinderId && nowMs - Date.parse(at) < SLIP_MS,
  );
  return (
    <div role="group" aria-label={label}>
      <Text size="sm">{label}</Text>
      <Group gap={8}>
        {whats.map((what) => (
          <Button
            key={what}
            mih={48}
            px="sm"
            variant="default"
            onClick={() => write({ step: 'happened', what, grinderId })}
          >
            {happeningWord[what]}
          </Button>
        ))}
      </Group>
      <Group gap={8} role="status">
        {last && (
          <>
            <Text size="sm">Noted: {happeningWord[last.body.what].toLowerCase()}.</Text>
            <Button
              variant="subtle"
              color="umber"
              onClick={() => write({ step: 'takenBack', machineId: null, readings: [], takesBack: last.id })}
            >
              Not so
            </Button>
          </>
        )}
      </Group>
    </div>
  );
}
