import { Checks } from './Checks.tsx';
import type { StepProps } from './stepProps.ts';

/** The chute and what lies around it. */
export function BrushChuteStep({ state, view, write }: StepProps) {
  const grinderId = state.job.stationId ?? '';
  return (
    <Checks
      says="Run what is left between the burrs out first; then unplug, and brush."
      checks={['The chute is brushed out, and the spout is free', 'The tray under it is wiped']}
      action={`${view.nameOf(grinderId)} is brushed`}
      onDone={() => write({ step: 'chuteBrushed', grinderId })}
    />
  );
}
