import type { Bar, Counter, Place } from '@tempera/contract/bar';
import { Link } from 'react-router';
import { dialNumber, moment } from '../ui/format.ts';
import { Seal, standingWord } from '../ui/Seal.tsx';
import classes from './BarPlan.module.css';
import { CounterDrawing, FixtureDrawing, GrinderDrawing, MachineDrawing } from './drawings.tsx';
import type { StandingGrinder } from './useStandings.ts';

interface Props {
  bar: Bar;
  standings: StandingGrinder[];
  nextId: string | null;
  timeZone: string;
  nowMs: number;
}

/** The counter that a piece stands on: the one whose middle is nearest. */
function counterOf(counters: readonly Counter[], place: Place): Counter | undefined {
  const middle = ({ yCm, depthCm }: Place): number => yCm + depthCm / 2;
  return counters.toSorted(
    (a, b) => Math.abs(middle(a.place) - middle(place)) - Math.abs(middle(b.place) - middle(place)),
  )[0];
}

/** "held today 06:42", "check due, held yesterday 06:40". */
function standingLine(
  { standing, lastLock, newBagAtMs, shotsSince }: StandingGrinder['state'],
  timeZone: string,
  nowMs: number,
): string {
  const held = lastLock ? `held ${moment(Date.parse(lastLock.at), timeZone, nowMs)}` : '';
  return standing === 'held'
    ? held
    : [
        standing === 'dialling' && shotsSince === 0 ? 'collar moved' : standingWord[standing],
        newBagAtMs === null ? '' : 'new bag',
        held,
      ]
        .filter(Boolean)
        .join(', ');
}

/** Names of the grinders that were last used on a group. */
function usedOn(standings: readonly StandingGrinder[], groupId: string): string {
  return standings
    .filter(({ lastGroup }) => lastGroup?.id === groupId)
    .map(({ grinder }) => grinder.name)
    .join(', ');
}

/** The bar as it stands in the room, seen from above: counters, machines with their groups, grinders with how they stand. */
export function BarPlan({ bar, standings, nextId, timeZone, nowMs }: Props) {
  const { room } = bar;
  const percentX = (cm: number): string => `${(100 * cm) / room.widthCm}%`;
  const percentY = (cm: number): string => `${(100 * cm) / room.depthCm}%`;
  return (
    <section
      className={classes.plan}
      aria-label="The bar in plan"
      style={{ '--room-ratio': room.widthCm / room.depthCm }}
    >
      <svg className={classes.drawing} viewBox={`0 0 ${room.widthCm} ${room.depthCm}`} aria-hidden="true">
        {bar.counters.map((counter) => (
          <CounterDrawing key={counter.id} counter={counter} />
        ))}
        {bar.machines.map((machine) => (
          <MachineDrawing
            key={machine.id}
            machine={machine}
            faces={counterOf(bar.counters, machine.place)?.faces ?? 'down'}
            usedOn={(groupId) => usedOn(standings, groupId)}
          />
        ))}
        {bar.fixtures.map((fixture) => (
          <FixtureDrawing key={fixture.id} fixture={fixture} />
        ))}
        {standings.map(({ grinder, state }) => (
          <GrinderDrawing
            key={grinder.id}
            place={grinder.place}
            faces={counterOf(bar.counters, grinder.place)?.faces ?? 'down'}
            standing={state.standing}
          />
        ))}
      </svg>
      <ul className={classes.labels}>
        {standings.map((standing) => {
          const { grinder, state } = standing;
          const counter = counterOf(bar.counters, grinder.place);
          const up = counter?.faces === 'up';
          const edge = counter ? counter.place.yCm + (up ? 0 : counter.place.depthCm) : grinder.place.yCm;
          return (
            <li
              key={grinder.id}
              className={classes.station}
              data-side={up ? 'above' : 'below'}
              style={{ '--at-x': percentX(grinder.place.xCm + grinder.place.widthCm / 2), '--at-y': percentY(edge) }}
            >
              <Link to={`/bench/${grinder.id}`} className={classes.label} data-next={grinder.id === nextId}>
                <span className={classes.name}>
                  <Seal standing={state.standing} /> {grinder.name}
                </span>
                <span className={classes.setting}>
                  <span className="faint">dial </span>
                  <span className="number">{dialNumber(state.setting)}</span>
                </span>
                <span>{grinder.coffee}</span>
                <span className="faint">{standingLine(state, timeZone, nowMs)}</span>
              </Link>
            </li>
          );
        })}
      </ul>
    </section>
  );
}
