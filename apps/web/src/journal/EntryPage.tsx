import { Anchor, Stack, Text, Title } from '@mantine/core';
import type { Bar } from '@tempera/contract/bar';
import type { JournalEntry, RecordedEntry } from '@tempera/contract/journal';
import type { Session } from '@tempera/contract/team';
import type { FactOf } from '@tempera/core/facts';
import { MS_PER_MINUTE } from '@tempera/core/numbers';
import { ApiProblem } from '../kernel/api.ts';
import { Link, useParams } from 'react-router';
import { useBar } from '../bar/index.ts';
import { LiveChart } from '../capture/index.ts';
import { cupWord, moment, seconds } from '../kernel/format.ts';
import { NotFoundPage } from '../ui/NotFoundPage.tsx';
import { Failed, Loading } from '../ui/Notice.tsx';
import { useNow } from '../ui/useNow.ts';
import { factLine } from './factLine.ts';
import classes from './JournalPage.module.css';
import { Places, useNames } from './Places.tsx';
import { useEntry } from './queries.ts';
import { flawWord, kindWord } from './words.ts';

/** One entry by itself: what was written, what it aimed at, its trace, and what was made of it since. */
export function EntryPage({ session }: { session: Session }) {
  const { id = '' } = useParams();
  const { data, error, refetch } = useEntry(id);
  const { data: bar } = useBar();
  if (error instanceof ApiProblem && ['notFound', 'invalid'].includes(error.problem.code)) return <NotFoundPage />;
  if (error && !data) return <Failed error={error} onRetry={() => void refetch()} />;
  if (!data || !bar) return <Loading what="the entry" />;
  return <Entry {...data} bar={bar} session={session} />;
}

function Entry({ fact, related, gate, unconfirmedFrom, bar, session }: JournalEntry & { bar: Bar; session: Session }) {
  const nowMs = useNow();
  const names = useNames(bar);
  const when = (at: string): string => moment(Date.parse(at), session.site.timeZone, nowMs);
  const corrections = related.filter((one) => one.kind === 'correction');
  const target = fact.kind === 'correction' ? (related.find(({ id }) => id === fact.body.factId) ?? null) : null;
  const shots = related.filter((one) => one.kind === 'shot' && one.id !== target?.id);
  return (
    <Stack gap="md">
      <div>
        <Anchor component={Link} to="/journal">
          Journal
        </Anchor>
        <Title order={1}>
          {kindWord[fact.kind]}, {when(fact.at)}
        </Title>
        <Text className="faint">
          {names.get(fact.personId) ?? 'Somebody unknown'}
          {fact.approvedBy !== null && ` with ${names.get(fact.approvedBy) ?? 'somebody'}’s yes`}{' '}
          <Places fact={fact} names={names} bar={bar} />
        </Text>
        {unconfirmedFrom !== undefined && (
          <Text>By name at {unconfirmedFrom}, not confirmed by their PIN yet: it counts all the same.</Text>
        )}
      </div>
      <Text size="lg">{factLine(fact, target)}</Text>
      <dl className={classes.numbers}>
        {[...detailsOf(fact, gate), ...lateWord(fact, when)].map(([what, says]) => (
          <div key={what}>
            <dt>{what}</dt>
            <dd>{says}</dd>
          </div>
        ))}
      </dl>
      {fact.kind === 'shot' && fact.body.trace && gate && (
        <div className={classes.trace} role="img" aria-label={`How the shot ran: ${factLine(fact, null)}`}>
          <LiveChart
            trace={fact.body.trace}
            firstDropS={fact.body.firstDropS}
            stoppedAtS={fact.body.timeS}
            recipe={gate}
            band={null}
          />
        </div>
      )}
      <Others title="The shots that it rests on" facts={shots} when={when} />
      <Others title="What it corrects" facts={target ? [target] : []} when={when} />
      <Others title="Corrected since" facts={corrections.filter(({ id }) => id !== fact.id)} when={when} of={fact} />
    </Stack>
  );
}

interface OthersProps {
  title: string;
  facts: readonly RecordedEntry[];
  when: (at: string) => string;
  /** What they correct. */
  of?: RecordedEntry;
}

function Others({ title, facts, when, of }: OthersProps) {
  if (facts.length === 0) return null;
  return (
    <section aria-label={title}>
      <Title order={2} size="h3">
        {title}
      </Title>
      <ul className={classes.others}>
        {facts.map((fact) => (
          <li key={fact.id}>
            <Link to={`/journal/entry/${fact.id}`}>{when(fact.at)}</Link> {factLine(fact, of ?? null)}
          </li>
        ))}
      </ul>
    </section>
  );
}

type Detail = [what: string, says: string];

/** Numbers that the one line of an entry leaves out. */
function detailsOf(fact: RecordedEntry, gate: JournalEntry['gate']): Detail[] {
  const aim: Detail[] = gate
    ? [
        ['Recipe', `${gate.recipe}, version ${gate.version}`],
        ['It asks for', cupWord(gate)],
      ]
    : [];
  if (fact.kind === 'lock') return [...lockDetails(fact), ...aim];
  if (fact.kind !== 'shot') return [];
  const { firstDropS, flaw, partial, volumeCount } = fact.body;
  return [
    ['First drop', firstDropS === null ? 'not seen' : seconds(firstDropS)],
    ['Seen', flaw === null ? 'no flaw' : flawWord[flaw]],
    ...(volumeCount === undefined ? [] : [['Counter', String(volumeCount)] satisfies Detail]),
    ...(partial ? [['Trace', 'a part of it was lost on the way'] satisfies Detail] : []),
    ...aim,
  ];
}

/** When it came in, where that was a while after: it waited on a tablet. */
const lateWord = ({ at, receivedAt }: RecordedEntry, when: (at: string) => string): Detail[] =>
  Date.parse(receivedAt) - Date.parse(at) < MS_PER_MINUTE ? [] : [['Reached the house', when(receivedAt)]];

function lockDetails({ body: { expected } }: FactOf<'lock'>): Detail[] {
  return [
    [
      'Expected',
      `${seconds(expected.timeS)}, eight in ten from ${seconds(expected.lowS)} to ${seconds(expected.highS)}`,
    ],
  ];
}
