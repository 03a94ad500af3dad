import type { Counter, Fixture, Machine, Place } from '@tempera/contract/bar';
import type { HoldState } from '@tempera/core/bar';
import classes from './BarPlan.module.css';

/** Pieces of the bar as seen from above, in centimetres. The barista stands on the side that `faces` names. */

type Faces = Counter['faces'];

export function CounterDrawing({ counter }: { counter: Counter }) {
  const { xCm, yCm, widthCm, depthCm } = counter.place;
  const GRAIN_CM = [9, 21, 34, 48];
  return (
    <g>
      <rect className={classes.wood} x={xCm + 0.5} y={yCm + 0.5} width={widthCm - 1} height={depthCm - 1} rx={3} />
      {GRAIN_CM.map((grain) => (
        <path
          key={grain}
          className={classes.grain}
          d={`M${xCm + 4} ${yCm + grain} C ${xCm + widthCm / 3} ${yCm + grain - 2}, ${xCm + (2 * widthCm) / 3} ${yCm + grain + 2.5}, ${xCm + widthCm - 4} ${yCm + grain}`}
        />
      ))}
    </g>
  );
}

const HANDLE_CM = 15;

interface MachineProps {
  machine: Machine;
  faces: Faces;
  /** Which grinders were last dialled in on a group. */
  usedOn: (groupId: string) => string;
  /** Whether the name is drawn; else it stands on a label over it. */
  named: boolean;
}

export function MachineDrawing({ machine, faces, usedOn, named }: MachineProps) {
  const { xCm, yCm, widthCm, depthCm } = machine.place;
  const pitch = widthCm / machine.groups.length;
  const side = faces === 'down' ? 1 : -1;
  const groupY = faces === 'down' ? yCm + depthCm - 11 : yCm + 11;
  const nameY = faces === 'down' ? yCm + 16 : yCm + depthCm - 9;
  return (
    <g>
      <rect className={classes.steel} x={xCm} y={yCm} width={widthCm} height={depthCm} rx={5} />
      <rect className={classes.tray} x={xCm + 5} y={groupY - 9} width={widthCm - 10} height={18} rx={3} />
      {named && (
        <text className={classes.machineName} x={xCm + widthCm / 2} y={nameY} textAnchor="middle">
          {machine.name}
        </text>
      )}
      {machine.groups.map((group, i) => {
        const x = xCm + pitch * (i + 0.5);
        return (
          <g key={group.id}>
            <line
              className={classes.handle}
              x1={x}
              x2={x}
              y1={groupY + side * 6}
              y2={groupY + side * (6 + HANDLE_CM)}
            />
            <circle className={classes.group} cx={x} cy={groupY} r={7.5} />
            <text className={classes.groupName} x={x} y={groupY + 2.6} textAnchor="middle">
              {group.name.replace(/^Group /, '')}
            </text>
            <text className={classes.usedOn} x={x} y={groupY + side * (HANDLE_CM + 13) + 2} textAnchor="middle">
              {usedOn(group.id)}
            </text>
          </g>
        );
      })}
    </g>
  );
}

export function GrinderDrawing({ place, faces, standing }: { place: Place; faces: Faces; standing: HoldState }) {
  const { xCm, yCm, widthCm, depthCm } = place;
  const x = xCm + widthCm / 2;
  const chuteY = faces === 'down' ? yCm + depthCm - 7 : yCm + 7;
  const hopperY = faces === 'down' ? yCm + 14 : yCm + depthCm - 14;
  return (
    <g data-standing={standing}>
      <rect className={classes.steel} x={xCm} y={yCm} width={widthCm} height={depthCm} rx={6} />
      <circle className={classes.hopper} cx={x} cy={hopperY} r={10.5} />
      <circle className={classes.beans} cx={x} cy={hopperY} r={7.5} />
      <rect className={classes.chute} x={x - 4} y={chuteY - 4} width={8} height={8} rx={2} />
    </g>
  );
}

export function FixtureDrawing({ fixture }: { fixture: Fixture }) {
  const { xCm, yCm, widthCm, depthCm } = fixture.place;
  const x = xCm + widthCm / 2;
  const y = yCm + depthCm / 2;
  return (
    <g>
      {fixture.kind === 'milk' ? (
        <g className={classes.outline}>
          <rect x={xCm} y={yCm} width={widthCm} height={depthCm} rx={4} />
          <circle cx={x - widthCm / 5} cy={y} r={7} />
          <circle cx={x + widthCm / 5} cy={y - 5} r={5.5} />
        </g>
      ) : (
        <rect
          className={classes.outline}
          x={xCm}
          y={yCm}
          width={widthCm}
          height={depthCm}
          rx={fixture.kind === 'knockBox' ? 6 : 2}
        />
      )}
      {fixture.kind === 'knockBox' && (
        <line className={classes.bar} x1={xCm + 1} x2={xCm + widthCm - 1} y1={y} y2={y} />
      )}
      <text className={classes.fixtureName} x={x} y={yCm - 2} textAnchor="middle">
        {fixture.name}
      </text>
    </g>
  );
}
