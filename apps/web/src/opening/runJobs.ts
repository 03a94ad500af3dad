import type { Bar } from '@tempera/contract/bar';
import { lastLock } from '@tempera/core/calibration';
import { ofGrinder, type StandingFacts } from '@tempera/core/facts';
import { closedBefore, jobsOf, type Job, type LeftJob, type Morning } from '@tempera/core/opening';

/** The group that a grinder is dialled in on: where it was locked last, or else the first. */
function referenceGroup(grinderId: string, facts: StandingFacts, groups: readonly { id: string }[]): string {
  const groupId = lastLock(ofGrinder(facts, grinderId))?.groupId ?? null;
  return groups.find(({ id }) => id === groupId)?.id ?? groups[0]?.id ?? '';
}

/** What the closing before this run left out. */
const leftBefore = (facts: StandingFacts, fromMs: number): readonly LeftJob[] =>
  closedBefore(facts, fromMs)?.left ?? [];

/**
 * The jobs of a run over this bar.
 * @param buttonsOf how many volume buttons a group has
 * @param upkeepDue whether something that is kept up was due when it began
 */
export function runJobs(
  { machines, grinders, fixtures, house }: Bar,
  facts: StandingFacts,
  { run, grinderIds, fromMs }: Morning,
  buttonsOf: (groupId: string) => number,
  upkeepDue: boolean,
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
    upkeepDue,
    left: run === 'opening' ? leftBefore(facts, fromMs) : [],
    provesDoses: house.dosing === 'timed' && house.doseProof === 'meanOfThree',
  };
  return jobsOf(bar, run, grinderIds);
}
