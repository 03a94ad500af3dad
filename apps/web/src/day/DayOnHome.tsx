import { Button, Group, Text, Title } from '@mantine/core';
import type { Session } from '@tempera/contract/team';
import { MS_PER_MINUTE, Z_80 } from '@tempera/core/numbers';
import { useState } from 'react';
import { Link } from 'react-router';
import { useWriteFacts } from '../kernel/facts.tsx';
import { dialNumber, grams, moment, percent } from '../kernel/format.ts';
import { BandRow } from '../ui/BandRow.tsx';
import { useNow } from '../ui/useNow.ts';
import classes from './Day.module.css';
import { TimeAShot } from './TimeAShot.tsx';
import { useDay, type DayStation } from './useDay.ts';

/** The day behind the counter: where each grinder stands by now, and which is looked at next. */
export function DayOnHome({ session }: { session: Session }) {
  const nowMs = useNow();
  const stations = useDay(session, nowMs);
  const [timing, setTiming] = useState<string | null>(null);
  if (!stations || stations.length === 0) return null;
  return (
    <section className={`sheet ${classes.day}`} aria-label="The day">
      <Title order={2} size="h3">
        The day
      </Title>
      <ul className={classes.stations}>
        {stations.map((station) => (
          <Station
            key={station.grinder.id}
            station={station}
            timeZone={session.site.timeZone}
            nowMs={nowMs}
            timing={timing === station.grinder.id}
            onTiming={(on) => setTiming(on ? station.grinder.id : null)}
          />
        ))}
      </ul>
    </section>
  );
}

/** Minutes are counted so far; beyond that the clock says more. */
const COUNTED_MIN = 120;

/** "next look in 25 min", "to be looked at since 10 min", "to be looked at since yesterday 06:15". */
function dueWord(dueAtMs: number | null, timeZone: string, nowMs: number): string {
  if (dueAtMs === null) return '';
  const minutes = Math.round((dueAtMs - nowMs) / MS_PER_MINUTE);
  if (minutes > 0) return `next look in ${minutes} min`;
  if (minutes === 0) return 'to be looked at now';
  return `to be looked at since ${minutes > -COUNTED_MIN ? `${-minutes} min` : moment(dueAtMs, timeZone, nowMs)}`;
}

interface StationProps {
  station: DayStation;
  timeZone: string;
  nowMs: number;
  timing: boolean;
  onTiming: (on: boolean) => void;
}

function Station({ station, timeZone, nowMs, timing, onTiming }: StationProps) {
  const { grinder, state, lastGroup, advice } = station;
  const { predicted, outside } = advice;
  const { timeMinS: low, timeMaxS: high } = grinder.recipe;
  const due = state.dueAtMs !== null && nowMs >= state.dueAtMs;
  const spread = Math.exp(Z_80 * predicted.sd);
  return (
    <li className={classes.station} aria-label={grinder.name}>
      <Group justify="space-between">
        <Text>
          <strong>{grinder.name}</strong> at {dialNumber(state.setting)},{' '}
          <span data-due={due} className={classes.due}>
            {state.newBagAtMs === null ? dueWord(state.dueAtMs, timeZone, nowMs) : 'another bag is in'}
          </span>
        </Text>
        {!timing && (
          <Group gap="xs">
            {lastGroup && state.newBagAtMs === null && (
              <Button variant={due ? 'filled' : 'default'} onClick={() => onTiming(true)}>
                Time a shot
              </Button>
            )}
            <Button
              component={Link}
              to={lastGroup ? `/bench/${grinder.id}/${lastGroup.id}` : `/bench/${grinder.id}`}
              variant="default"
            >
              To the bench
            </Button>
          </Group>
        )}
      </Group>
      <BandRow
        name="Time"
        unit="s"
        value={predicted.timeS}
        window={{ low, high }}
        doubt={{ low: predicted.timeS / spread, high: predicted.timeS * spread }}
      />
      <Text className="faint">{percent(1 - outside)} sure that it is still inside.</Text>
      {advice.action === 'move' && <Move station={station} />}
      {timing && lastGroup && (
        <TimeAShot grinder={grinder} groupId={lastGroup.id} setting={state.setting} onDone={() => onTiming(false)} />
      )}
    </li>
  );
}

/** A small move between two orders; whoever puts it off reads above what it costs. */
function Move({ station: { grinder, state, advice } }: { station: DayStation }) {
  const writeFacts = useWriteFacts();
  const { setting: to } = advice;
  const done = (): void => {
    const at = { grinderId: grinder.id, groupId: null };
    writeFacts([
      { kind: 'collarMove', ...at, body: { from: state.setting, to, advisedTo: to } },
      { kind: 'purge', ...at, body: { purgeG: advice.purgeG } },
    ]);
  };
  return (
    <Group gap="sm">
      <Text>
        Between two orders: to {dialNumber(to)}, and {grams(advice.purgeG)} into the knock box.
      </Text>
      <Button variant="default" onClick={done}>
        It is done
      </Button>
    </Group>
  );
}
