import { Button, Group, Text, Title } from '@mantine/core';
import type { Session } from '@tempera/contract/team';
import { Link, useNavigate } from 'react-router';
import { useShortcuts } from '../kernel/shortcuts.ts';
import { dialNumber, grams, moment } from '../kernel/format.ts';
import { Failed, Loading } from '../ui/Notice.tsx';
import { useNow } from '../ui/useNow.ts';
import { BarPlan } from './BarPlan.tsx';
import { FirstThings } from './FirstThings.tsx';
import classes from './HomePage.module.css';
import { useBar } from './queries.ts';
import { useOpeningInHand } from './useOpeningInHand.ts';
import { useUsedG } from './useUsed.ts';
import { useGrinderStates, type KnownGrinder } from './useGrinderStates.ts';

/** Where a tap on a grinder leads: its usual group, or the choice of one. */
function benchPath({ grinder, lastGroup }: KnownGrinder): string {
  return lastGroup ? `/bench/${grinder.id}/${lastGroup.id}` : `/bench/${grinder.id}`;
}

/** Home: the next thing to do, and the bar in plan. */
export function HomePage({ session }: { session: Session }) {
  const nowMs = useNow();
  const { data: bar, error, refetch } = useBar();
  const { all, next } = useGrinderStates(bar, nowMs);
  const opening = useOpeningInHand(nowMs);
  const usedG = useUsedG(session.site, nowMs);
  const navigate = useNavigate();
  useShortcuts({ n: () => next && void navigate(benchPath(next)), p: () => void navigate('/plan') });
  if (!bar) return error ? <Failed error={error} onRetry={() => void refetch()} /> : <Loading what="the bar" />;
  const { timeZone } = session.site;
  return (
    <>
      {bar.grinders.length > 0 ? (
        <NextThing next={next} all={all} timeZone={timeZone} nowMs={nowMs} opening={opening !== null} />
      ) : (
        <FirstThings bar={bar} session={session} />
      )}
      <BarPlan bar={bar} standings={all} nextId={next?.grinder.id ?? null} timeZone={timeZone} nowMs={nowMs} />
      <Text className={classes.office}>
        {usedG > 0 && (
          <span className="faint">
            {grams(usedG)} of coffee used {opening === null ? 'today' : 'since the opening began'}
          </span>
        )}
        <Link to="/bar">The bar, piece by piece</Link>
        <Link to="/plan">The plan</Link>
      </Text>
    </>
  );
}

function NextThing({
  next,
  all,
  timeZone,
  nowMs,
  opening,
}: {
  next: KnownGrinder | null;
  all: KnownGrinder[];
  timeZone: string;
  nowMs: number;
  opening: boolean;
}) {
  if (!next) return <AllHold all={all} timeZone={timeZone} nowMs={nowMs} />;
  const { grinder, state, lastGroup } = next;
  return (
    <Group className={classes.next} justify="space-between" component="section" aria-label="Next thing to do">
      <div>
        <Title order={1}>
          {nextWord(state)} {grinder.name}
          {lastGroup && ` on ${lastGroup.name}`}
        </Title>
        <Text className="faint">{whyNext(next, timeZone, nowMs)}</Text>
      </div>
      <Group gap="xs" className={classes.ways}>
        {opening && (
          <Button component={Link} to="/opening" size="xl" className={classes.go}>
            To the opening
          </Button>
        )}
        <Button
          component={Link}
          to={benchPath(next)}
          size="xl"
          variant={opening ? 'default' : 'filled'}
          className={classes.go}
        >
          To the bench
        </Button>
      </Group>
    </Group>
  );
}

function AllHold({ all, timeZone, nowMs }: { all: KnownGrinder[]; timeZone: string; nowMs: number }) {
  const dueAtMs = Math.min(...all.map(({ state }) => state.dueAtMs ?? Infinity));
  return (
    <section className={classes.next} aria-label="Next thing to do">
      <Title order={1}>Every grinder holds its window</Title>
      <Text className="faint">The next check falls due {moment(dueAtMs, timeZone, nowMs)}.</Text>
    </section>
  );
}

function nextWord({ standing, shotsSince }: KnownGrinder['state']): string {
  if (standing !== 'dialling') return 'Dial in';
  return shotsSince === 0 ? 'See to' : 'Go on with';
}

function whyNext({ grinder, state }: KnownGrinder, timeZone: string, nowMs: number): string {
  const { lastLock, dueAtMs, dueCause, newBagAtMs, shotsSince } = state;
  if (state.standing === 'dialling') {
    if (shotsSince === 0 && lastLock) {
      return `It last held at ${dialNumber(lastLock.body.setting)}; the collar was moved to ${dialNumber(state.setting)} since, and no shot was pulled there.`;
    }
    return `${shotsSince} ${shotsSince === 1 ? 'shot' : 'shots'} pulled, not locked yet; the dial stands at ${dialNumber(state.setting)}.`;
  }
  if (!lastLock || dueAtMs === null) return `${grinder.coffee} has never been dialled in on this grinder.`;
  const held = `${grinder.coffee} last held its window ${moment(Date.parse(lastLock.at), timeZone, nowMs)} at ${dialNumber(lastLock.body.setting)}`;
  if (dueCause === 'opening') return `${held}; every grinder is looked at in the opening.`;
  return newBagAtMs === null
    ? `${held}; its check fell due ${moment(dueAtMs, timeZone, nowMs)}.`
    : `${held}; another bag went in ${moment(newBagAtMs, timeZone, nowMs)}, so it wants a check.`;
}
