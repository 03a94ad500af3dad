import type { Place } from '@tempera/contract/bar';
import type { Job } from '@tempera/core/opening';
import { PlanDrawing } from '../bar/late.ts';
import classes from './Opening.module.css';
import type { MorningView } from './useMorning.ts';

const AROUND_CM = 10;

/** The bar in plan with the station of a job lit. */
export function StationMap({ view, job }: { view: MorningView; job: Job | null }) {
  const { room } = view.bar;
  const lit = job ? [job.stationId, job.withId].flatMap((id) => placeOf(view, id)) : [];
  return (
    <div className={classes.map}>
      <PlanDrawing bar={view.bar} className={classes.mapDrawing} />
      <svg
        className={classes.lights}
        viewBox={`0 0 ${room.widthCm} ${room.depthCm}`}
        role="img"
        aria-label={
          job
            ? `Where it is: ${[job.stationId, job.withId].map(view.nameOf).filter(Boolean).join(', ') || 'the bar'}`
            : 'The bar'
        }
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
