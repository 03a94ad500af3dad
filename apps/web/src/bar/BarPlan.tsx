import { MS_PER_MINUTE } from '@tempera/core/numbers';
import type { Bar, Place } from '@tempera/contract/bar';
import { warmthOf, type Warmth } from '@tempera/core/bar';
import { Link } from 'react-router';
import { dialNumber, moment } from '../kernel/format.ts';
import { Seal, standingWord } from './Seal.tsx';
import classes from './BarPlan.module.css';
import { counterOf, PlanDrawing } from './PlanDrawing.tsx';
import { useStandingFacts } from './useStandingFacts.ts';
import type { KnownGrinder } from './useGrinderStates.ts';

interface Props {
  bar: Bar;
  standings: KnownGrinder[];
  nextId: string | null;
  timeZone: string;
  nowMs: number;
}

/** "held today 06:42", "check due, held yesterday 06:40". */
function standingLine(
  { standing, lastLock, newBagAtMs, shotsSince }: KnownGrinder['state'],
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

/** "hot since 06:02", "on for 12 min", "not switched on". */
function warmWord(warmth: Warmth, timeZone: string, nowMs: number): string {
  if (warmth.is === 'unknown') return 'not switched on';
  if (warmth.is === 'hot') return `hot since ${moment(warmth.sinceMs, timeZone, nowMs).replace('today ', '')}`;
  return `on for ${Math.max(0, Math.floor((nowMs - warmth.sinceMs) / MS_PER_MINUTE))} min`;
}

/** Names of the grinders that were last used on a group. */
function usedOn(standings: readonly KnownGrinder[], groupId: string): string {
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
  const facts = useStandingFacts();
  const onMachine = (place: Place) => {
    const up = counterOf(bar.counters, place)?.faces === 'up';
    return {
      className: classes.onMachine,
      'data-side': up ? 'above' : 'below',
      style: {
        '--at-x': percentX(place.xCm + place.widthCm / 2),
        '--at-y': percentY(up ? place.yCm + place.depthCm : place.yCm),
      },
    };
  };
  const spotOf = (place: Place) => {
    const counter = counterOf(bar.counters, place);
    const up = counter?.faces === 'up';
    const edge = counter ? counter.place.yCm + (up ? 0 : counter.place.depthCm) : place.yCm + place.depthCm;
    return {
      className: classes.station,
      'data-side': up ? 'above' : 'below',
      style: { '--at-x': percentX(place.xCm + place.widthCm / 2), '--at-y': percentY(edge) },
    };
  };
  return (
    <section
      className={classes.plan}
      aria-label="The bar in plan"
      style={{ '--room-ratio': room.widthCm / room.depthCm }}
    >
      <PlanDrawing
        bar={bar}
        className={classes.drawing}
        standingOf={(id) => standings.find(({ grinder }) => grinder.id === id)?.state.standing ?? 'never'}
        usedOn={(groupId) => usedOn(standings, groupId)}
        named={false}
      />
      <ul className={classes.labels}>
        {bar.waiting.map(({ id, name, place, lacks }) => (
          <li key={id} {...spotOf(place)}>
            <Link to={`/bar/grinder/${id}`} className={classes.label}>
              <span className={classes.name}>{name}</span>
              <span className={classes.wide}>
                {lacks === 'coffee' ? 'Holds no coffee yet: put a bag in.' : 'Its coffee has no recipe yet.'}
              </span>
            </Link>
          </li>
        ))}
        {standings.map((standing) => {
          const { grinder, state } = standing;
          return (
            <li key={grinder.id} {...spotOf(grinder.place)}>
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
        {bar.machines.map(({ id, name, place }) => (
          <li key={id} {...onMachine(place)}>
            <Link to={`/bar/machine/${id}`} className={classes.machineLabel}>
              <span className={classes.name}>{name}</span>
              <span>{warmWord(warmthOf(facts, id, nowMs), timeZone, nowMs)}</span>
            </Link>
          </li>
        ))}
      </ul>
    </section>
  );
}
