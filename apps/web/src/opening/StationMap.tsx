import type { Fixture, Place } from '@tempera/contract/bar';
import type { Job } from '@tempera/core/opening';
import { PlanDrawing } from '../bar/index.ts';
import classes from './Opening.module.css';
import type { MorningView } from './useMorning.ts';

const AROUND_CM = 10;

/** The bar in plan with the station of a job lit. */
export function StationMap({ view, job }: { view: MorningView; job: Job | null }) {
  const { room } = view.bar;
  const lit = job ? placesOf(view, job) : [];
  return (
    <div className={classes.map}>
      <PlanDrawing bar={view.bar} className={classes.mapDrawing} />
      <svg
        className={classes.lights}
        viewBox={`0 0 ${room.widthCm} ${room.depthCm}`}
        role="img"
        aria-label={job ? `Where it is: ${whereWord(view, job)}` : 'The bar'}
      >
        {lit.map(({ xCm, yCm, widthCm, depthCm }, i) => (
          <rect
            key={i}
            x={xCm - AROUND_CM}
            y={yCm - AROUND_CM}
            width={widthCm + 2 * AROUND_CM}
            height={depthCm + 2 * AROUND_CM}
            rx={AROUND_CM}
          />
        ))}
      </svg>
    </div>
  );
}

/** Where a job is done: at its stations, or at the pieces that it is about. */
function placesOf(view: MorningView, { kind, stationId, withId }: Job): Place[] {
  if (kind === 'milk' || kind === 'scale') return fixturesOf(view, kind).map(({ place }) => place);
  return [stationId, withId].flatMap((id) => placeOf(view, id));
}

const fixturesOf = ({ bar }: MorningView, of: Fixture['kind']) => bar.fixtures.filter(({ kind }) => kind === of);

/** The same in words. */
function whereWord(view: MorningView, { kind, stationId, withId }: Job): string {
  const names =
    kind === 'milk' || kind === 'scale'
      ? fixturesOf(view, kind).map(({ name }) => name)
      : [stationId, withId].map(view.nameOf).filter(Boolean);
  return names.join(', ') || 'the bar';
}

/** Where a machine, a grinder or a group stands. */
function placeOf({ bar }: MorningView, id: string | null): Place[] {
  const whole = [...bar.machines, ...bar.grinders].find((piece) => piece.id === id);
  if (whole) return [whole.place];
  return bar.machines.flatMap(({ place, groups }) => {
    const index = groups.findIndex((group) => group.id === id);
    if (index < 0) return [];
    const widthCm = place.widthCm / groups.length;
    return [{ ...place, xCm: place.xCm + index * widthCm, widthCm }];
  });
}
