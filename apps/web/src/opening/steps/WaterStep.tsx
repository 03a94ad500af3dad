import { Button, Checkbox, Group, Stack } from '@mantine/core';
import { useState } from 'react';
import { Warn } from './Warn.tsx';
import type { StepProps } from './stepProps.ts';

/** Water reaches the machine, and the filter is in date. */
export function WaterStep({ state, view, write }: StepProps) {
  const [waterRuns, setWaterRuns] = useState(false);
  const [filterInDate, setFilterInDate] = useState(false);
  const machineId = state.job.stationId ?? '';
  const name = view.nameOf(machineId);
  return (
    <Stack>
      <Checkbox
        size="lg"
        label={`Water reaches ${name}: the tap is open, and a group gives a steady stream`}
        checked={waterRuns}
        onChange={(event) => setWaterRuns(event.currentTarget.checked)}
      />
      <Checkbox
        size="lg"
        label="The filter is in date"
        checked={filterInDate}
        onChange={(event) => setFilterInDate(event.currentTarget.checked)}
      />
      <Group>
        <Button
          size="xl"
          disabled={!waterRuns}
          onClick={() => write({ step: 'water', machineId, waterRuns, filterInDate })}
        >
          {waterRuns && !filterInDate ? 'Go on with an old filter' : 'Water is right'}
        </Button>
        <Button
          size="xl"
          variant="default"
          disabled={waterRuns}
          onClick={() => write({ step: 'water', machineId, waterRuns: false, filterInDate })}
        >
          No water
        </Button>
      </Group>
      {state.notRight === 'noWater' && (
        <Warn>Leave {name} off. Open the tap; if no water comes, call a licensed technician.</Warn>
      )}
    </Stack>
  );
}
