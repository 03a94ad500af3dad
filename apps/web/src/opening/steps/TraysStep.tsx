import { Checks } from './Checks.tsx';
import type { StepProps } from './stepProps.ts';

/** Drip trays, once the groups are flushed. */
export function TraysStep({ state, view, write }: StepProps) {
  const machineId = state.job.stationId ?? '';
  return (
    <Checks
      checks={['Tray and grid are washed', 'Hot water went down the drain: it runs free']}
      action={`The trays of ${view.nameOf(machineId)} are clean`}
      onDone={() => write({ step: 'traysCleaned', machineId })}
    />
  );
}
