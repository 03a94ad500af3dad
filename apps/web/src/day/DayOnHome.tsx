import { Button, Group, Text, Title } from '@mantine/core';
import type { Session } from '@tempera/contract/team';
import { rushIsOn } from '@tempera/core/day';
import { factsSince, stepsOf } from '@tempera/core/facts';
import { businessDay, openSpan, shiftEnding } from '@tempera/core/house';
import { MS_PER_MINUTE } from '@tempera/core/numbers';
import { useEffect, useMemo, useState } from 'react';
import { Link } from 'react-router';
import { useClosed, useOpeningInHand, useStandingFacts, usualBench } from '../bar/index.ts';
import { PaceInRush } from '../house/index.ts';
import { useCalendarRead } from '../kernel/calendar.ts';
import { clock, dialNumber, percent } from '../kernel/format.ts';
import { notify, useCue } from '../kernel/senses.ts';
import { NextThing } from '../ui/NextThing.tsx';
import { useNow } from '../ui/useNow.ts';
import { useSettled } from '../ui/useSettled.ts';
import { AirByHand } from './AirByHand.tsx';
import { ClosedOnHome } from './Closed.tsx';
import { firmerWord, isForBench } from './AdviceInService.tsx';
import classes from './Day.module.css';
import { dueWord } from './dueWord.ts';
import { HandOverWaits } from './HandOverWaits.tsx';
import { Happenings } from './Happenings.tsx';
import { Notes } from './Notes.tsx';
import { doingAlso, StationInService, type Doing } from './StationInService.tsx';
import { isTimed } from './servedTimer.ts';
import { sureWord } from './sureWord.ts';
import { asksForChange, dueMsOf, useDay, type DayStation } from './useDay.ts';

/** The day behind the counter: what is due next, where each grinder stands by now, and what happened. */
export function DayOnHome({ session, leads }: { session: Session; leads: boolean }) {
  const nowMs = useNow();
  const stations = useDay(session, nowMs);
  const { doingAt, setDoing } = useDoing();
  const [first] = stations ?? [];
  const settled = useSettled<HTMLUListElement>(
    (stations ?? []).map(({ grinder, advice }) => grinder.id + advice.action).join(),
  );
  const closed = useClosed(nowMs);
  const inRun = useOpeningInHand(nowMs) !== null;
  const { calendar, isPending } = useCalendarRead();
  const rush = useRush(nowMs);
  const { timeZone } = session.site;
  if (closed) return <ClosedOnHome closed={closed} session={session} />;
  // What the hour offers stands above the rest: nothing is drawn that it would push away.
  if (isPending && leads) return <NextThing title="One moment" why="The day is read." />;
  if (!stations || !first) return null;
  const ends = calendar && shiftEnding(calendar, nowMs);
  const closesMs = calendar
    ? (openSpan(calendar, businessDay(nowMs, timeZone, session.site.dayStartsMin))?.closesMs ?? null)
    : null;
  const closesSoon = !inRun && closesMs !== null && nowMs > closesMs - CLOSES_SOON_MS;
  return (
    <>
      <HandOverWaits session={session} nowMs={nowMs} />
      {closesSoon && (
        <Offer
          says={`The bar ${closesMs > nowMs ? 'closes' : 'closed'} at ${clock(closesMs, timeZone)}.`}
          action="Begin the closing"
          to="/opening?run=closing"
        />
      )}
      {ends && <ShiftEnds name={ends.name} sinceMs={ends.toMs - HANDED_MS} />}
      {leads && (
        <NextInService
          station={first}
          timeZone={timeZone}
          nowMs={nowMs}
          doing={doingAt(first.grinder.id)}
          onDoing={(doing) => setDoing(first.grinder.id, doing)}
        />
      )}
      <section className={`sheet ${classes.day}`} aria-label="The day">
        <Title order={2} size="h3">
          The day
        </Title>
        <ul className={classes.stations} ref={settled}>
          {stations.map((station) => (
            <StationInService
              key={station.grinder.id}
              station={station}
              timeZone={timeZone}
              nowMs={nowMs}
              doing={doingAt(station.grinder.id)}
              onDoing={(doing) => setDoing(station.grinder.id, doing)}
            />
          ))}
        </ul>
        <Group gap="md" className={classes.elsewhere}>
          <Link to="/day/handover">Hand over</Link>
          <Link to="/day">How the grinders ran</Link>
        </Group>
        <Notes grinderId={null} />
        {rush && <PaceInRush people={Math.max(1, rush.people)} />}
        <div className={classes.wholeBar}>
          <Happenings grinderId={null} whats={['doors', 'ovens', 'rushBegan', 'rushEnded']} label="At the whole bar" />
          <AirByHand />
        </div>
      </section>
    </>
  );
}

/** What somebody is at, at each grinder by itself: in a rush two shots run at once. */
function useDoing() {
  const [doing, setDoing] = useState<Readonly<Record<string, readonly Doing[]>>>({});
  return {
    doingAt: (grinderId: string): readonly Doing[] => doing[grinderId] ?? (isTimed(grinderId) ? ['time'] : []),
    setDoing: (grinderId: string, whats: readonly Doing[]): void =>
      setDoing((before) => ({ ...before, [grinderId]: whats })),
  };
}

/** The doors close soon, or have closed. */
const CLOSES_SOON_MS = 45 * MS_PER_MINUTE;
/** A hand-over that was left so long before the shift's end is its own. */
const HANDED_MS = 60 * MS_PER_MINUTE;
/** Who wrote something down so lately is behind the bar. */
const HERE_MS = 45 * MS_PER_MINUTE;

/** A rush that is on, and how many are behind the bar in it; null while there is none. */
function useRush(nowMs: number): { people: number } | null {
  const facts = useStandingFacts();
  return useMemo(() => {
    if (!rushIsOn(facts, nowMs)) return null;
    return { people: new Set(factsSince(facts, nowMs - HERE_MS).map(({ personId }) => personId)).size };
  }, [facts, nowMs]);
}

/** A shift ends about now: its hand-over is offered, once, until somebody has left it. */
function ShiftEnds({ name, sinceMs }: { name: string; sinceMs: number }) {
  const facts = useStandingFacts();
  const left = stepsOf(factsSince(facts, sinceMs), 'handedOver').length > 0;
  if (left) return null;
  return (
    <Offer
      says={`${name} ends: hand the bar over to the next one, it takes a minute.`}
      action="Hand over"
      to="/day/handover"
    />
  );
}

/** What the hour asks for, one line and one tap. */
function Offer({ says, action, to }: { says: string; action: string; to: string }) {
  return (
    <Group className="sheet" mb="md" role="status" justify="space-between">
      <Text>{says}</Text>
      <Button component={Link} to={to} mih={48}>
        {action}
      </Button>
    </Group>
  );
}

interface NextProps {
  station: DayStation;
  timeZone: string;
  nowMs: number;
  doing: readonly Doing[];
  onDoing: (doing: readonly Doing[]) => void;
}

/** The one next thing of a served day, or one calm line. */
function NextInService({ station, timeZone, nowMs, doing, onDoing }: NextProps) {
  const { grinder, state, advice, doseDueAtMs, lastGroup } = station;
  const { name } = grinder;
  const sure = sureWord(station, name);
  const isDue = dueMsOf(station) <= nowMs;
  const asks = asksForChange(station, nowMs);
  useCue('due', isDue);
  useEffect(() => {
    if (isDue) notify(`See to ${name}`, 'Something is due at the bar.');
  }, [isDue, name]);
  const begin = (what: 'dose' | 'time'): void => onDoing(doingAlso(doing, what));
  const timeIt = !doing.includes('time') && lastGroup && (
    <Button size="xl" onClick={() => begin('time')}>
      Time it
    </Button>
  );
  if (!isDue) {
    return <NextThing title="Nothing is due" why={`${name} first, ${dueWord(dueMsOf(station), timeZone, nowMs)}.`} />;
  }
  if (asks && advice.tampS !== null) {
    return (
      <NextThing title={`Tamp ${name} a touch ${firmerWord(advice.tampS)}, and time the next shot`} why={sure}>
        {timeIt}
      </NextThing>
    );
  }
  if (asks) {
    const title =
      advice.action === 'move' ? `Turn ${name} to ${dialNumber(advice.setting)} between two orders` : `See to ${name}`;
    const then = `${percent(1 - advice.outside)} after it.`;
    return isForBench(advice) ? (
      <NextThing title={`See to ${name}`} why="One shot at the bench says more than the day can.">
        <Button component={Link} to={usualBench(station)} size="xl">
          To the bench
        </Button>
      </NextThing>
    ) : (
      <NextThing title={title} why={`${sure} ${then} Below it says how.`} />
    );
  }
  const what = doseDueAtMs !== null && doseDueAtMs < (state.dueAtMs ?? Infinity) ? 'dose' : 'time';
  return what === 'time' ? (
    <NextThing title={`Time a shot of ${name}`} why={sure}>
      {timeIt}
    </NextThing>
  ) : (
    <NextThing title={`Weigh a dose of ${name}`} why="One dose on the scale says whether the grind time still holds.">
      {!doing.includes('dose') && (
        <Button size="xl" onClick={() => begin('dose')}>
          Weigh it
        </Button>
      )}
    </NextThing>
  );
}
