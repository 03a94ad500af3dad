import type { Bar } from '@tempera/contract/bar';
import type { RecordedEntry } from '@tempera/contract/journal';
import { stationsOf } from '@tempera/core/facts';
import { Fragment, useMemo } from 'react';
import { Link } from 'react-router';
import { usePeople } from '../team/index.ts';

/** Names of whatever an entry may be about or by, by id. */
export function useNames(bar: Bar | undefined): Map<string, string> {
  const people = usePeople();
  return useMemo(() => {
    const groups = bar?.machines.flatMap((machine) => machine.groups) ?? [];
    const stations = bar ? [...bar.grinders, ...bar.waiting, ...bar.machines] : [];
    return new Map([...people, ...groups, ...stations].map(({ id, name }) => [id, name]));
  }, [people, bar]);
}

/** The stations that an entry is about, each with the way to its sheet. */
export function Places({ fact, names, bar }: { fact: RecordedEntry; names: Map<string, string>; bar: Bar }) {
  return placesOf(fact).map((id, i) => (
    <Fragment key={id}>
      {i > 0 && ', '}
      <Place id={id} name={names.get(id)} bar={bar} />
    </Fragment>
  ));
}

/** A station by its name, with the way to its sheet while it is in use. */
function Place({ id, name, bar }: { id: string; name: string | undefined; bar: Bar }) {
  if (name === undefined) return 'out of use';
  const isMachine = bar.machines.some((machine) => machine.id === id);
  const isGroup = bar.machines.some(({ groups }) => groups.some((group) => group.id === id));
  return <Link to={`/bar/${isMachine ? 'machine' : isGroup ? 'group' : 'grinder'}/${id}`}>{name}</Link>;
}

/** The stations that an entry is about. */
function placesOf(fact: RecordedEntry): string[] {
  if (fact.kind !== 'step') return fact.groupId === null ? [fact.grinderId] : [fact.grinderId, fact.groupId];
  const claimed = fact.body.step === 'begun' || fact.body.step === 'skipped' ? fact.body.stationId : null;
  const { machineId, grinderId, groupId } = stationsOf(fact.body);
  return [machineId, grinderId, groupId, claimed].filter((id) => typeof id === 'string');
}
