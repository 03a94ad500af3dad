import { Button } from '@mantine/core';
import type { StepProps } from './stepProps.ts';

/** Power: from here the machine warms by itself. */
export function SwitchOnStep({ state, view, write }: StepProps) {
  const machineId = state.job.stationId ?? '';
  return (
    <Button size="xl" onClick={() => write({ step: 'switchedOn', machineId, readings: [], takesBack: null })}>
      {view.nameOf(machineId)} is on
    </Button>
  );
}
