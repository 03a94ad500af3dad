import { Button, Group } from '@mantine/core';
import type { StepProps } from './stepProps.ts';

/** Power down, or to standby where the machine keeps itself warm. */
export function SwitchOffStep({ state, view, write }: StepProps) {
  const machineId = state.job.stationId ?? '';
  const name = view.nameOf(machineId);
  return (
    <Group>
      <Button size="xl" onClick={() => write({ step: 'switchedOff', machineId, to: 'off' })}>
        {name} is off
      </Button>
      <Button size="xl" variant="default" onClick={() => write({ step: 'switchedOff', machineId, to: 'standby' })}>
        {name} is on standby
      </Button>
    </Group>
  );
}
