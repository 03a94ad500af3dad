import { TasteGrinder } from '../../taste/index.ts';
import type { StepProps } from './stepProps.ts';

/** The tongue decides, once the numbers fit; what it decides ends the job. */
export function TasteStep({ state, view, session }: StepProps) {
  const grinder = view.bar.grinders.find(({ id }) => id === state.job.stationId);
  if (!grinder) return null;
  const { bar, facts, people, nowMs } = view;
  return <TasteGrinder bar={bar} grinder={grinder} facts={facts} people={people} session={session} nowMs={nowMs} />;
}
