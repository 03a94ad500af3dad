import { Button, Group, Stack, Text, Title } from '@mantine/core';
import type { Bar } from '@tempera/contract/bar';
import type { Session } from '@tempera/contract/team';
import { memoryContextOf } from '@tempera/contract/station';
import { lastOnMs, openNotes, stationChanges, waitingHandOver } from '@tempera/core/day';
import { factsSince, stepsOf, type StandingFacts } from '@tempera/core/facts';
import { IconPrinter } from '@tabler/icons-react';
import { Link } from 'react-router';
import { useBar, useStandingFacts } from '../bar/index.ts';
import { freshnessIn, freshWord, nextBags, useStock } from '../coffee/index.ts';
import { useWriteStep } from '../kernel/facts.tsx';
import { dayWord, moment } from '../kernel/format.ts';
import { usePeople } from '../team/index.ts';
import { Failed, Loading } from '../ui/Notice.tsx';
import { useNow } from '../ui/useNow.ts';
import classes from './Day.module.css';
import { aimLine, changedLine, standsLine } from './handOverLines.ts';
import { NewNote, Notes } from './Notes.tsx';
import { useDay, type DayStation } from './useDay.ts';

/** As much of a line as the fact keeps, and as many. */
const LONGEST_LINE = 400;
const MOST_LINES = 60;
const SHIFT_MS = 4 * 3_600_000;

/** One page from one shift to the next, made by the app; reading it takes half a minute. */
export function HandOverPage({ session }: { session: Session }) {
  const nowMs = useNow();
  const { data: bar, error, refetch } = useBar();
  const facts = useStandingFacts();
  const stations = useDay(session, nowMs);
  if (!bar || !stations)
    return error ? <Failed error={error} onRetry={() => void refetch()} /> : <Loading what="the hand-over" />;
  return <Page session={session} bar={bar} facts={facts} stations={stations} nowMs={nowMs} />;
}

interface PageProps {
  session: Session;
  bar: Bar;
  facts: StandingFacts;
  stations: DayStation[];
  nowMs: number;
}

function Page({ session, bar, facts, stations, nowMs }: PageProps) {
  const { timeZone } = session.site;
  const people = usePeople();
  const nameOf = (id: string): string => people.find((person) => person.id === id)?.name ?? 'somebody';
  const waits = waitingHandOver(facts);
  const byOther = waits !== null && waits.personId !== session.person.id ? waits : null;
  const dayFromMs = Date.parse(bar.memory.upTo);
  const sinceMs = Math.max(dayFromMs, lastOnMs(facts, session.person.id) ?? dayFromMs);
  const { recipeOf } = memoryContextOf(bar);
  const ids = bar.grinders.map(({ id }) => id);
  const changed = (fromMs: number): string[] =>
    stationChanges(facts, ids, fromMs, recipeOf).flatMap((change) => changedLine(change, bar) ?? []);
  const stands = stations.map((station) => standsLine(station, timeZone, nowMs));
  const aims = stations.flatMap((station) => aimLine(station) ?? []);
  const signed = stepsOf(factsSince(facts, dayFromMs), 'signedOff').at(-1)?.body.notRight ?? [];
  const notes = openNotes(facts).map(({ body }) => body.text);
  const notServing = bar.grinders
    .filter(({ id }) => !stations.some(({ grinder }) => grinder.id === id))
    .map(({ name }) => `${name} is not dialled in today`);
  const on = [...new Set(factsSince(facts, nowMs - SHIFT_MS).map(({ personId }) => personId))].map(nameOf);
  return (
    <Stack gap="md" className={classes.handOver}>
      <Group justify="space-between">
        <div>
          <Title order={1}>Hand-over</Title>
          <Text className="faint">
            {session.site.name}, {moment(nowMs, timeZone, nowMs)}
          </Text>
        </div>
        <Button
          variant="default"
          leftSection={<IconPrinter />}
          className={classes.noPrint}
          onClick={() => window.print()}
        >
          Print
        </Button>
      </Group>
      {byOther && (
        <TakeOver
          id={byOther.id}
          says={`${nameOf(byOther.personId)} left the bar ${moment(Date.parse(byOther.at), timeZone, nowMs)}.`}
        />
      )}
      <Lines
        title={`Since you were last on, ${moment(sinceMs, timeZone, nowMs)}`}
        lines={changed(sinceMs)}
        none="Nothing was turned, timed or filled."
      />
      <Lines title="How it stands" lines={[...stands, ...notServing]} none="No grinder serves." />
      <Lines title="Decided by taste" lines={aims} none="Every cup is as its recipe says." />
      <Lines title="The whole day" lines={changed(dayFromMs)} none="Nothing happened yet." />
      {signed.length > 0 && <Lines title="Left out, or not right, at the last sign-off" lines={signed} none="" />}
      <Bags bar={bar} timeZone={timeZone} nowMs={nowMs} />
      <section aria-label="Open notes">
        <Title order={2} size="h3">
          Open notes
        </Title>
        {notes.length === 0 && <Text>None.</Text>}
        {bar.grinders.map(({ id }) => (
          <Notes key={id} grinderId={id} />
        ))}
        {[...new Set(bar.grinders.map(({ coffeeId }) => coffeeId))].map((id) => (
          <Notes key={id} grinderId={null} coffeeId={id} />
        ))}
        <Notes grinderId={null} />
        <NewNote grinderId={null} />
      </section>
      <Text>On by now: {on.length === 0 ? 'nobody wrote anything lately' : on.join(', ')}.</Text>
      <Leave
        waits={waits?.personId === session.person.id}
        says={[...stands, ...notServing, ...aims, ...signed, ...notes].slice(0, MOST_LINES)}
      />
    </Stack>
  );
}

function Lines({ title, lines, none }: { title: string; lines: readonly string[]; none: string }) {
  return (
    <section aria-label={title}>
      <Title order={2} size="h3">
        {title}
      </Title>
      {lines.length === 0 ? (
        <Text className="faint">{none}</Text>
      ) : (
        <ul className={classes.lines}>
          {lines.map((line) => (
            <li key={line}>{line}</li>
          ))}
        </ul>
      )}
    </section>
  );
}

/** What is in each hopper, and what goes in next. */
function Bags({ bar, timeZone, nowMs }: { bar: Bar; timeZone: string; nowMs: number }) {
  const { data: stock } = useStock();
  if (!stock) return null;
  const lines = bar.grinders.map(({ id, name, coffee, coffeeId }) => {
    const bag = stock.bags.find(({ state, grinderId }) => state === 'hopper' && grinderId === id);
    const fresh = bag ? freshnessIn(stock, bag, timeZone, nowMs) : null;
    const [next] = nextBags(stock, coffeeId, timeZone, nowMs);
    const after = next ? `next the bag roasted ${dayWord(next.bag.kept.sheet.roastedOn)}` : 'no bag waits';
    return `${name}: ${coffee}${fresh ? `, ${freshWord(fresh).toLowerCase()}` : ''}; ${after}`;
  });
  return <Lines title="Bags" lines={lines} none="No hopper is known." />;
}

/** The next one takes it over under their own name: whoever is signed in here. */
function TakeOver({ id, says }: { id: string; says: string }) {
  const write = useWriteStep();
  return (
    <Group className={`sheet ${classes.noPrint}`}>
      <Text>{says}</Text>
      <Button size="lg" onClick={() => write({ step: 'takenOver', handedOverId: id })}>
        I take it over
      </Button>
    </Group>
  );
}

/** Whoever goes leaves it, as it stands on the page. */
function Leave({ waits, says }: { waits: boolean; says: readonly string[] }) {
  const write = useWriteStep();
  return (
    <Group className={classes.noPrint}>
      {waits ? (
        <Text fw={600}>You have left it; the next one takes it over under their own name.</Text>
      ) : (
        <Button
          size="lg"
          onClick={() => write({ step: 'handedOver', says: says.map((line) => line.slice(0, LONGEST_LINE)) })}
        >
          I leave it so
        </Button>
      )}
      <Button component={Link} to="/" size="lg" variant="default">
        Back to the bar
      </Button>
    </Group>
  );
}
