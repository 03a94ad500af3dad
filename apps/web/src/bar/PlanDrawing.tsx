import type { Bar, Counter, Place } from '@tempera/contract/bar';
import type { HoldState } from '@tempera/core/bar';
import { CounterDrawing, FixtureDrawing, GrinderDrawing, MachineDrawing } from './drawings.tsx';

/** The counter that a piece stands on: the one whose middle is nearest. */
export function counterOf(counters: readonly Counter[], place: Place): Counter | undefined {
  const middle = ({ yCm, depthCm }: Place): number => yCm + depthCm / 2;
  return counters.toSorted(
    (a, b) => Math.abs(middle(a.place) - middle(place)) - Math.abs(middle(b.place) - middle(place)),
  )[0];
}

interface Props {
  bar: Bar;
  className: string | undefined;
  /** How a grinder stands; without it the plan is a plan and nothing more. */
  standingOf?: (grinderId: string) => HoldState;
  usedOn?: (groupId: string) => string;
  /** Whether machines carry their names in the drawing. */
  named?: boolean;
}

/** The bar seen from above, drawn. What it says in words is said beside it. */
export function PlanDrawing({ bar, className, standingOf, usedOn, named = true }: Props) {
  const facesAt = (place: Place) => counterOf(bar.counters, place)?.faces ?? 'down';
  return (
    <svg className={className} viewBox={`0 0 ${bar.room.widthCm} ${bar.room.depthCm}`} aria-hidden="true">
      {bar.counters.map((counter) => (
        <CounterDrawing key={counter.id} counter={counter} />
      ))}
      {bar.machines.map((machine) => (
        <MachineDrawing
          key={machine.id}
          machine={machine}
          faces={facesAt(machine.place)}
          usedOn={usedOn ?? (() => '')}
          named={named}
        />
      ))}
      {bar.fixtures.map((fixture) => (
        <FixtureDrawing key={fixture.id} fixture={fixture} />
      ))}
      {[...bar.grinders, ...bar.waiting].map(({ id, place }) => (
        <GrinderDrawing key={id} place={place} faces={facesAt(place)} standing={standingOf?.(id) ?? 'never'} />
      ))}
    </svg>
  );
}
