import { Button } from '@mantine/core';
import { useWriteStep } from '../kernel/facts.tsx';

/** Takes back what was decided in one go: facts of their own, like any other. */
export function TakeBack({ stepIds }: { stepIds: readonly string[] }) {
  const write = useWriteStep();
  return (
    <Button
      variant="subtle"
      color="umber"
      onClick={() => {
        for (const takesBack of stepIds) write({ step: 'takenBack', machineId: null, readings: [], takesBack });
      }}
    >
      Take it back
    </Button>
  );
}
