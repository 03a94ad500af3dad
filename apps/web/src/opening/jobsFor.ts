import { may, rightsOf, type Job } from '@tempera/core/opening';
import type { MorningView } from './useMorning.ts';

/** Which jobs a person of the café may do. */
export function jobsFor(view: MorningView, personId: string): (job: Job) => boolean {
  const rights = rightsOf(view.people.find(({ id }) => id === personId)?.role ?? 'office');
  return ({ who }) => may(rights, who);
}
