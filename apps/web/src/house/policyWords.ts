import type { HousePolicy } from '@tempera/core/calibration';
import { percent } from '../ui/format.ts';

/** The schools of the house book: what each choice means, and why it is ours where it is. */
export const lockSchools: { value: HousePolicy['lockRule']; name: string; says: string }[] = [
  {
    value: 'sureness',
    name: 'A stated sureness',
    says: 'Our default: it asks for more shots only when they are needed.',
  },
  { value: 'firstGood', name: 'The first good shot', says: 'Quickest; it says least about the next shot.' },
  { value: 'oneRepeat', name: 'One repeat', says: 'Two good shots in a row.' },
  {
    value: 'meanOfThree',
    name: 'The mean of three',
    says: 'Slow; the mean decides, even when one of the three was outside.',
  },
];

export const trimSchools: { value: HousePolicy['trim']; name: string; says: string }[] = [
  { value: 'dose', name: 'By the dose', says: 'Our default: 0.2 to 0.4 g more or less, and no purge.' },
  { value: 'none', name: 'Not at all', says: 'The collar alone; between two marks the likelier one is taken.' },
];

/** One line of a version: what was chosen. */
export function policyLine(policy: HousePolicy): string {
  const lock = lockSchools.find(({ value }) => value === policy.lockRule)?.name ?? '';
  const trim = policy.trim === 'dose' ? 'trims by the dose' : 'no trims';
  const sure = policy.lockRule === 'sureness' ? ` of ${percent(policy.sureness)}` : '';
  return `${lock}${sure}, ${trim}, a check at ${percent(policy.risk)} risk and after ${policy.longestCheckMin} min at the latest`;
}
