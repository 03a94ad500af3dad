import type { Bar } from '@tempera/contract/bar';
import { lacking, skillsOfJob, type PieceSkill } from '@tempera/contract/signOffs';
import type { Job, JobState } from '@tempera/core/opening';
import type { usePeople } from '../team/index.ts';

/** The machine or grinder that a job is done at. */
function piecesOf({ machines, grinders }: Bar, { stationId }: Pick<Job, 'stationId'>): readonly PieceSkill[] {
  if (grinders.some(({ id }) => id === stationId)) return [`grinder:${stationId ?? ''}`];
  const machine = machines.find(({ id, groups }) => id === stationId || groups.some((group) => group.id === stationId));
  return machine ? [`machine:${machine.id}`] : [];
}

/** For each person the jobs of a run that ask for something which the house has not signed them off for: the plan gives these to others. */
export function jobsNotSignedOff(
  bar: Bar | undefined,
  states: readonly Pick<JobState, 'job'>[],
  people: ReturnType<typeof usePeople>,
  day: string,
): (personId: string) => readonly string[] {
  if (!bar) return () => [];
  const asked = states.map(({ job }) => ({ key: job.key, skills: skillsOfJob(job.kind, piecesOf(bar, job)) }));
  return (personId) =>
    asked.filter(({ skills }) => lacking(people, personId, skills, day).length > 0).map(({ key }) => key);
}
