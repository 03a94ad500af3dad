import { MS_PER_MINUTE } from '@tempera/core/numbers';
import type { Bar, Place } from '@tempera/contract/bar';
import { warmthOf, type Warmth } from '@tempera/core/bar';
import { useElementSize } from '@mantine/hooks';
import { useMemo } from 'react';
import { Link } from 'react-router';
import { dialNumber, moment } from '../kernel/format.ts';
import { Seal, standingWord } from './Seal.tsx';
import classes from './BarPlan.module.css';
import { counterOf, PlanDrawing } from './PlanDrawing.tsx';
import { spread, type Spread } from './spread.ts';
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

/** A label's width on the plan, with the gap to the next; as in the styles. */
const LABEL_PX = 200 + 8;

const middleOf = ({ xCm, widthCm }: Place): number => xCm + widthCm / 2;

/** The edge of its counter that a grinder's label stands at, and whether above it. */
function edgeOf(bar: Bar, place: Place): { up: boolean; yCm: number } {
  const counter = counterOf(bar.counters, place);
  const up = counter?.faces === 'up';
  return { up, yCm: counter ? counter.place.yCm + (up ? 0 : counter.place.depthCm) : place.yCm + place.depthCm };
}

/** Where the grinders' labels stand, that none lies over another; none before the plan is as wide as it will be. */
function labelPlaces(bar: Bar, widthPx: number): Map<string, Spread> {
  const atEdge = new Map<string, { id: string; atPx: number }[]>();
  for (const { id, place } of [...bar.grinders, ...bar.waiting]) {
    const { up, yCm } = edgeOf(bar, place);
    const label = { id, atPx: (middleOf(place) / bar.room.widthCm) * widthPx };
    atEdge.set(`${up} ${yCm}`, [...(atEdge.get(`${up} ${yCm}`) ?? []), label]);
  }
  return new Map(widthPx === 0 ? [] : [...atEdge.values()].flatMap((labels) => [...spread(labels, LABEL_PX, widthPx)]));
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
  const { ref, width } = useElementSize();
  const places = useMemo(() => labelPlaces(bar, width), [bar, width]);
  const spotOf = (id: string, place: Place) => {
    const { up, yCm } = edgeOf(bar, place);
    const spot = places.get(id);
    return {
      className: classes.station,
      'data-side': up ? 'above' : 'below',
      style: {
        '--at-x': spot ? `${spot.atPx}px` : percentX(middleOf(place)),
        '--at-y': percentY(yCm),
        '--row': spot?.row ?? 0,
      },
    };
  };
  return (
    <section
      ref={ref}
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
          <li key={id} {...spotOf(id, place)}>
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
            <li key={grinder.id} {...spotOf(grinder.id, grinder.place)}>
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
