import { Button, Group, Stack } from '@mantine/core';
import { UpkeepList, upkeepLine, useUpkeep } from '../../bar/index.ts';
import type { StepProps } from './stepProps.ts';

/** What falls due by the calendar or by count, each done now or left for another day. */
export function UpkeepStep({ session, write }: StepProps) {
  const states = useUpkeep(session) ?? [];
  const due = states.filter(({ state }) => state === 'due' || state === 'soon');
  return (
    <Stack>
      <UpkeepList session={session} states={due} />
      <Group>
        <Button
          size="xl"
          onClick={() =>
            write({ step: 'upkeepSeen', left: due.filter(({ state }) => state === 'due').map(upkeepLine) })
          }
        >
          {due.some(({ state }) => state === 'due') ? 'The rest another day' : 'Nothing more is due'}
        </Button>
      </Group>
    </Stack>
  );
}
