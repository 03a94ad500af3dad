import { Button } from '@mantine/core';
import { useWriteStep } from '../kernel/facts.tsx';

/** Takes a step back: a fact of its own, like any other. */
export function TakeBack({ stepId }: { stepId: string }) {
  const write = useWriteStep();
  return (
    <Button
      variant="subtle"
      color="umber"
      onClick={() => write({ step: 'takenBack', machineId: null, readings: [], takesBack: stepId })}
    >
      Take it back
    </Button>
  );
}
