import { Button, Text } from '@mantine/core';
import type { Session } from '@tempera/contract/team';
import { nextGrinder, servesToday } from '@tempera/core/bar';
import { Link, useNavigate } from 'react-router';
import { useShortcuts } from '../kernel/shortcuts.ts';
import { dialNumber, grams, moment } from '../kernel/format.ts';
import { Slot, useSlotsAhead } from '../kernel/slots.tsx';
import { NextThing } from '../ui/NextThing.tsx';
import { Failed, Loading } from '../ui/Notice.tsx';
import { useNow } from '../ui/useNow.ts';
import { BarPlan } from './BarPlan.tsx';
import classes from './HomePage.module.css';
import { useBar } from './queries.ts';
import { useClosed, useOpeningInHand, useServesMeanwhile } from './useOpeningInHand.ts';
import { useUsedG } from './useUsed.ts';
import { useGrinderStates, type KnownGrinder } from './useGrinderStates.ts';
import { usualBench } from './usualBench.ts';

/** Home: the next thing to do, and the bar in plan. */
export function HomePage({ session }: { session: Session }) {
  const nowMs = useNow();
  const { data: bar, error, refetch } = useBar();
  const { all } = useGrinderStates(bar, nowMs);
  const { site } = session;
  const resting = all.filter(({ state }) => !servesToday(state, site, nowMs));
  const next = nextGrinder(resting.length > 0 ? resting : all);
  // Where every grinder serves, the day itself names the next thing.
  const dayLeads = all.length > 0 && resting.length === 0;
  const opening = useOpeningInHand(nowMs);
  const serves = useServesMeanwhile(nowMs);
  const closed = useClosed(nowMs);
  const usedG = useUsedG(session.site, nowMs);
  useSlotsAhead('/', 'homeAsks', opening === null ? 'homeDay' : 'homeNext');
  const navigate = useNavigate();
  useShortcuts({
    n: () => (opening !== null ? void navigate('/opening') : next && void navigate(usualBench(next))),
    p: () => void navigate('/plan'),
  });
  if (!bar) return error ? <Failed error={error} onRetry={() => void refetch()} /> : <Loading what="the bar" />;
  const { timeZone } = site;
  return (
    <>
      <Slot of="homeAsks" told={{ session }} />
      {bar.grinders.length > 0 ? (
        // While a run is in hand the home names the same next thing as the run does.
        <>
          {opening === null ? (
            <>
              {!dayLeads && !closed && <NextGrinder next={next} timeZone={timeZone} nowMs={nowMs} />}
              <Slot of="homeDay" told={{ session, leads: dayLeads }} />
            </>
          ) : (
            <>
              <Slot of="homeNext" told={{ session }} />
              {serves && <Slot of="homeDay" told={{ session, leads: false }} />}
            </>
          )}
        </>
      ) : (
        <Slot of="homeFirst" told={{ bar, session }} />
      )}
      <BarPlan
        bar={bar}
        standings={all}
        nextId={opening === null && !dayLeads ? (next?.grinder.id ?? null) : null}
        timeZone={timeZone}
        nowMs={nowMs}
      />
      <Text className={classes.office}>
        {usedG > 0 && (
          <span className="faint">
            {grams(usedG)} of coffee used {opening === null ? 'today' : 'since the opening began'}
          </span>
        )}
        <Link to="/bar">The bar, piece by piece</Link>
        <Link to="/plan">The plan</Link>
        <Link to="/devices">Devices</Link>
      </Text>
    </>
  );
}

interface NextGrinderProps {
  next: KnownGrinder | null;
  timeZone: string;
  nowMs: number;
}

/** The grinder that needs a hand first. */
function NextGrinder({ next, timeZone, nowMs }: NextGrinderProps) {
  if (!next) return <NextThing title="Every grinder holds its window" why="Nothing was dialled in today." />;
  const { grinder, state, lastGroup } = next;
  return (
    <NextThing
      title={`${nextWord(state)} ${grinder.name}${lastGroup ? ` on ${lastGroup.name}` : ''}`}
      why={whyNext(next, timeZone, nowMs)}
    >
      <Button component={Link} to={usualBench(next)} size="xl">
        To the bench
      </Button>
    </NextThing>
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
  if (dueCause === 'opening') return `${held}; it is looked at in this run.`;
  if (dueCause === 'taste') return `${held}; taste changed what it aims at since, and no shot has shown it.`;
  return newBagAtMs === null
    ? `${held}; its check fell due ${moment(dueAtMs, timeZone, nowMs)}.`
    : `${held}; another bag went in ${moment(newBagAtMs, timeZone, nowMs)}, so it wants a check.`;
}
