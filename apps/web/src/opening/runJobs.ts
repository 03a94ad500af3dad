import type { Bar } from '@tempera/contract/bar';
import { lastLock } from '@tempera/core/calibration';
import { ofGrinder, type StandingFacts } from '@tempera/core/facts';
import { jobsOf, type Job, type Morning } from '@tempera/core/opening';

/** The group that a grinder is dialled in on: where it was locked last, or else the first. */
function referenceGroup(grinderId: string, facts: StandingFacts, groups: readonly { id: string }[]): string {
  const groupId = lastLock(ofGrinder(facts, grinderId))?.groupId ?? null;
  return groups.find(({ id }) => id === groupId)?.id ?? groups[0]?.id ?? '';
}

/**
 * The jobs of a run over this bar.
 * @param buttonsOf how many volume buttons a group has
 */
export function runJobs(
  { machines, grinders, fixtures, house }: Bar,
  facts: StandingFacts,
  { run, grinderIds }: Morning,
  buttonsOf: (groupId: string) => number,
): Job[] {
  const groups = machines.flatMap((machine) => machine.groups);
  const has = (kind: (typeof fixtures)[number]['kind']): boolean => fixtures.some((fixture) => fixture.kind === kind);
  const bar = {
    machines: machines.map(({ id, groups: own }) => ({
      id,
      groups: own.map((group) => ({ id: group.id, buttons: buttonsOf(group.id) })),
    })),
    grinders: grinders.map(({ id }) => ({ id, referenceGroupId: referenceGroup(id, facts, groups) })),
    milk: has('milk'),
    byVolume: house.endsShot === 'volume',
    scale: has('scale'),
    provesDoses: house.dosing === 'timed' && house.doseProof === 'meanOfThree',
  };
  return jobsOf(bar, run, grinderIds);
}
