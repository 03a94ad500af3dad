import { Button, Group, Title } from '@mantine/core';
import type { Session } from '@tempera/contract/team';
import { useState } from 'react';
import { Link } from 'react-router';
import { dialNumber, percent } from '../kernel/format.ts';
import { NextThing } from '../ui/NextThing.tsx';
import { useNow } from '../ui/useNow.ts';
import classes from './Day.module.css';
import { dueWord } from './dueWord.ts';
import { HandOverWaits } from './HandOverWaits.tsx';
import { Happenings } from './Happenings.tsx';
import { Notes } from './Notes.tsx';
import { StationInService, type Doing } from './StationInService.tsx';
import { dueMsOf, useDay, type DayStation } from './useDay.ts';

/** The day behind the counter: what is due next, where each grinder stands by now, and what happened. */
export function DayOnHome({ session, leads }: { session: Session; leads: boolean }) {
  const nowMs = useNow();
  const stations = useDay(session, nowMs);
  const [doing, setDoing] = useState<Doing>({ grinderId: null, what: null });
  const [first] = stations ?? [];
  if (!stations || !first) return null;
  const { timeZone } = session.site;
  return (
    <>
      <HandOverWaits session={session} nowMs={nowMs} />
      {leads && <NextInService station={first} timeZone={timeZone} nowMs={nowMs} doing={doing} onDoing={setDoing} />}
      <section className={`sheet ${classes.day}`} aria-label="The day">
        <Title order={2} size="h3">
          The day
        </Title>
        <ul className={classes.stations}>
          {stations.map((station) => (
            <StationInService
              key={station.grinder.id}
              station={station}
              timeZone={timeZone}
              nowMs={nowMs}
              doing={doing.grinderId === station.grinder.id ? doing.what : null}
              onDoing={(what) => setDoing({ grinderId: station.grinder.id, what })}
            />
          ))}
        </ul>
        <Group gap="md">
          <Link to="/day/handover">Hand over</Link>
          <Link to="/day">How the grinders ran</Link>
        </Group>
        <Notes grinderId={null} writes={false} />
        <Happenings grinderId={null} whats={['doors', 'ovens', 'rushBegan', 'rushEnded']} label="At the whole bar" />
      </section>
    </>
  );
}

interface NextProps {
  station: DayStation;
  timeZone: string;
  nowMs: number;
  doing: Doing;
  onDoing: (doing: Doing) => void;
}

/** The one next thing of a served day, or one calm line. */
function NextInService({ station, timeZone, nowMs, doing, onDoing }: NextProps) {
  const { grinder, state, advice, doseDueAtMs, lastGroup } = station;
  const { name } = grinder;
  const sure = `${percent(1 - advice.here.outside)} sure that ${name} is still inside`;
  if (advice.action !== 'leave') {
    const title =
      advice.action === 'move' && !advice.byBench
        ? `Turn ${name} to ${dialNumber(advice.setting)} between two orders`
        : `See to ${name}`;
    const then = `${percent(1 - advice.outside)} after it`;
    return <NextThing title={title} why={`${sure}${advice.byBench ? '' : `, ${then}`}. Below it says how.`} />;
  }
  if (dueMsOf(station) > nowMs) {
    return <NextThing title="Nothing is due" why={`${name} first, ${dueWord(dueMsOf(station), timeZone, nowMs)}.`} />;
  }
  const what = doseDueAtMs !== null && doseDueAtMs < (state.dueAtMs ?? Infinity) ? 'dose' : 'time';
  const isOpen = doing.grinderId === grinder.id && doing.what === what;
  return (
    <NextThing
      title={what === 'dose' ? `Weigh a dose of ${name}` : `Time a shot of ${name}`}
      why={what === 'dose' ? 'One dose on the scale says whether the grind time still holds.' : `${sure}.`}
    >
      {!isOpen && (what === 'dose' || lastGroup) && (
        <Button size="xl" onClick={() => onDoing({ grinderId: grinder.id, what })}>
          {what === 'dose' ? 'Weigh it' : 'Time it'}
        </Button>
      )}
    </NextThing>
  );
}
