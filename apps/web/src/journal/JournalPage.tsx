import { Button, Group, Select, Title } from '@mantine/core';
import type { JournalPage as JournalPageOf } from '@tempera/contract/journal';
import type { Bar } from '@tempera/contract/bar';
import type { Session } from '@tempera/contract/team';
import { entryKinds } from '@tempera/core/facts';
import { IconDownload } from '@tabler/icons-react';
import { useMemo } from 'react';
import { Link, useSearchParams } from 'react-router';
import { useBar } from '../bar/index.ts';
import { useUnsent } from '../kernel/facts.tsx';
import { keepsHouse } from '../kernel/sheets.ts';
import { usePeople } from '../team/index.ts';
import { moment } from '../kernel/format.ts';
import { Empty, Failed, Loading } from '../ui/Notice.tsx';
import { useNow } from '../ui/useNow.ts';
import { factLine } from './factLine.ts';
import classes from './JournalPage.module.css';
import { Places, useNames } from './Places.tsx';
import { useJournal } from './queries.ts';
import { kindWord } from './words.ts';

/** Every fact, newest first, in plain words; filters live in the address. */
export function JournalPage({ session }: { session: Session }) {
  const [params, setParams] = useSearchParams();
  const filters = {
    grinderId: params.get('grinder'),
    groupId: params.get('group'),
    personId: params.get('person'),
    kind: params.get('kind'),
  };
  const { data, error, refetch, fetchNextPage, hasNextPage, isFetchingNextPage } = useJournal(filters);
  const { data: bar } = useBar();
  // What was told by name alone stands below already.
  const unsent = useUnsent().filter(({ told }) => !told).length;
  const filter = (name: string, value: string | null): void => {
    setParams((before) => {
      if (value) before.set(name, value);
      else before.delete(name);
      return before;
    });
  };
  return (
    <div className={classes.page}>
      <Title order={1}>Journal</Title>
      <Group gap="xs" className={classes.exports}>
        {(['shots', 'moves', 'tastings'] as const).map((kind) => (
          <Button
            key={kind}
            component="a"
            href={`/api/journal/${kind}.csv`}
            download
            variant="default"
            leftSection={<IconDownload size={20} aria-hidden="true" />}
          >
            {exportName[kind]} as CSV
          </Button>
        ))}
        {keepsHouse(session) && (
          <Button component={Link} to="/journal/changes" variant="default">
            Changes and sign-ins
          </Button>
        )}
      </Group>
      <Filters bar={bar} values={filters} onFilter={filter} />
      {unsent > 0 && (
        <Empty>{unsent} written on this device and not sent yet; they appear here once the server has them.</Empty>
      )}
      {error && !data ? (
        <Failed error={error} onRetry={() => void refetch()} />
      ) : !data || !bar ? (
        <Loading what="the journal" />
      ) : (
        <Lines bar={bar} session={session} pages={data.pages} />
      )}
      {hasNextPage && (
        <Button variant="default" mt="md" loading={isFetchingNextPage} onClick={() => void fetchNextPage()}>
          Earlier entries
        </Button>
      )}
    </div>
  );
}

interface FiltersProps {
  bar: Bar | undefined;
  values: { grinderId: string | null; groupId: string | null; personId: string | null; kind: string | null };
  onFilter: (name: string, value: string | null) => void;
}

const options = (items: readonly { id: string; name: string }[]) =>
  items.map(({ id, name }) => ({ value: id, label: name }));

function Filters({ bar, values, onFilter }: FiltersProps) {
  const people = usePeople();
  const groups = bar?.machines.flatMap((machine) => machine.groups) ?? [];
  const all = [
    { name: 'grinder', label: 'Grinder', value: values.grinderId, data: options(bar?.grinders ?? []) },
    { name: 'group', label: 'Group', value: values.groupId, data: options(groups) },
    { name: 'person', label: 'Person', value: values.personId, data: options(people) },
    {
      name: 'kind',
      label: 'Kind',
      value: values.kind,
      data: entryKinds.map((kind) => ({ value: kind, label: kindWord[kind] })),
    },
  ];
  return (
    <div className={classes.filters}>
      {all.map(({ name, label, value, data }) => (
        <Select
          key={name}
          label={label}
          placeholder="All"
          clearable
          value={value}
          data={data}
          onChange={(next) => onFilter(name, next)}
        />
      ))}
    </div>
  );
}

function Lines({
  bar,
  session,
  pages,
}: {
  bar: Bar;
  session: Session;
  pages: readonly Pick<JournalPageOf, 'facts' | 'related' | 'unconfirmed'>[];
}) {
  const nowMs = useNow();
  const facts = pages.flatMap((page) => page.facts);
  const names = useNames(bar);
  const known = useMemo(
    () => new Map(pages.flatMap((page) => [...page.facts, ...page.related]).map((fact) => [fact.id, fact])),
    [pages],
  );
  const correctedIds = new Set(
    [...known.values()].flatMap((fact) => (fact.kind === 'correction' ? [fact.body.factId] : [])),
  );
  const unconfirmed = new Set(pages.flatMap((page) => page.unconfirmed ?? []));
  if (facts.length === 0) return <Empty>Nothing is written down that matches. Clear a filter, or pull a shot.</Empty>;
  return (
    <table className={classes.lines}>
      <thead>
        <tr>
          <th>When</th>
          <th>Who</th>
          <th>Where</th>
          <th>Kind</th>
          <th>What</th>
        </tr>
      </thead>
      <tbody>
        {facts.map((fact) => (
          <tr key={fact.id}>
            <td>
              <Link to={`/journal/entry/${fact.id}`}>{moment(Date.parse(fact.at), session.site.timeZone, nowMs)}</Link>
            </td>
            <td>{names.get(fact.personId) ?? 'unknown'}</td>
            <td>
              <Places fact={fact} names={names} bar={bar} />
            </td>
            <td>{kindWord[fact.kind]}</td>
            <td>
              {factLine(fact, fact.kind === 'correction' ? (known.get(fact.body.factId) ?? null) : null)}
              {fact.clock !== null && (
                <em className="faint">
                  {' '}
                  its clock said {moment(Date.parse(fact.deviceAt), session.site.timeZone, nowMs)}
                </em>
              )}
              {fact.approvedBy !== null && (
                <em className="faint"> with {names.get(fact.approvedBy) ?? 'somebody'}’s yes</em>
              )}
              {unconfirmed.has(fact.id) && <em className="faint"> by name, not confirmed by a PIN yet</em>}
              {correctedIds.has(fact.id) && <em className="faint"> corrected later</em>}
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

const exportName = { shots: 'Shots', moves: 'Moves', tastings: 'Tastings' };
