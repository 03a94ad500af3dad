import { Checks } from './Checks.tsx';
import type { StepProps } from './stepProps.ts';

/** Wands soaked, wiped and blown. */
export function WandStep({ state, view, write }: StepProps) {
  const machineId = state.job.stationId ?? '';
  return (
    <Checks
      checks={['The tip stood in milk cleaner or hot water, and its holes are free', 'Wiped, then blown into a cloth']}
      action={`The wand of ${view.nameOf(machineId)} is clean`}
      onDone={() => write({ step: 'wandCleaned', machineId })}
    />
  );
}
