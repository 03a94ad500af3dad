import { may, rightsOf, type Job } from '@tempera/core/opening';
import type { MorningView } from './useMorning.ts';

/** Which jobs a person of the café may do. */
export function jobsFor(view: MorningView, personId: string): (job: Job) => boolean {
  const person = view.people.find(({ id }) => id === personId);
  const rights = rightsOf(person?.role ?? 'office', person?.signedOff, person?.mayNot);
  return (job) => may(rights, job);
}
