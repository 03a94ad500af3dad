import type { Session } from '@tempera/contract/team';
import type { StepBody } from '@tempera/core/facts';
import type { JobState } from '@tempera/core/opening';
import type { MorningView } from '../useMorning.ts';

/** What every step of the run is given. */
export interface StepProps {
  view: MorningView;
  state: JobState;
  session: Session;
  write: (body: StepBody) => void;
}
