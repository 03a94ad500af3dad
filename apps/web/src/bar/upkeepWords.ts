import type { UpkeepState } from '@tempera/core/bar';
import type { UpkeepKind } from '@tempera/core/facts';
import { dayWord } from '../kernel/format.ts';

/** What is kept up, by name and once it is done. */
export const upkeepWord: Record<UpkeepKind, { name: string; done: string }> = {
  filter: { name: 'Water filter', done: 'Water filter changed' },
  gaskets: { name: 'Gaskets', done: 'Gaskets changed' },
  screens: { name: 'Screens', done: 'Screens changed' },
  descaling: { name: 'Descaling', done: 'Descaled' },
  service: { name: 'Service', done: 'Serviced' },
  burrs: { name: 'Burrs', done: 'New burrs fitted' },
};

/** "Water filter: due since 12 Nov", without its station. */
export function upkeepLine({ item, state, dueOn, by, left }: UpkeepState): string {
  const { name } = upkeepWord[item.what];
  if (state === 'unknown') return `${name}: nobody wrote down when it was last done`;
  if (dueOn === null) return `${name}: ${left === null ? 'no rule yet' : `${amount(item.what, left)} left`}`;
  const when = state === 'due' ? `due since ${dayWord(dueOn)}` : `due ${dayWord(dueOn)}`;
  const rest = left === null ? '' : `, about ${amount(item.what, left)} left`;
  return `${name}: ${when}${by === 'habit' ? ', as this house does it' : ''}${rest}`;
}

const amount = (what: UpkeepState['item']['what'], left: number): string =>
  `${Math.round(left)} ${what === 'burrs' ? 'kg' : 'l'}`;
