import type { Grinder } from '@tempera/contract/bar';
import { marksFiner, settingAt } from '@tempera/core/calibration';
import { dialNumber } from '../kernel/format.ts';
import classes from './DialStrip.module.css';

const STEPS_SHOWN = 10;
const WIDTH = 320;
const LINE_Y = 34;
const NEAR_PX = 34;

interface Props {
  grinder: Grinder;
  from: number;
  /** Where it should go; the same as `from` when it stays. */
  to: number;
  /** The house mark: where it last held; null or absent: nowhere yet. */
  heldAt?: number | null;
}

/** The collar's scale, unrolled: finer to the left, coarser to the right, with the move as an arrow. */
export function DialStrip({ grinder, from, to, heldAt = null }: Props) {
  const dial = { ...grinder, range: null };
  const steps = Math.max(STEPS_SHOWN, Math.ceil(Math.abs(marksFiner(dial, to, from)) / grinder.stepMarks) + 3);
  const x = (setting: number): number =>
    WIDTH / 2 - (marksFiner(dial, setting, from) / grinder.stepMarks / steps) * (WIDTH / 2 - 8);
  const ticks = Array.from({ length: 2 * steps + 1 }, (_, i) =>
    settingAt(dial, (steps - i) * grinder.stepMarks, from),
  ).filter((setting) => setting >= grinder.dialMin && setting <= grinder.dialMax);
  const labelled = Math.max(1, Math.round(steps / 4));
  const moves = from !== to;
  // Two numbers that would touch are set apart, away from each other.
  const near = moves && Math.abs(x(to) - x(from)) < NEAR_PX;
  const apart = near ? Math.sign(x(to) - x(from)) * ((NEAR_PX - Math.abs(x(to) - x(from))) / 2) : 0;
  const house = heldAt !== null && heldAt !== from && Math.abs(x(heldAt) - WIDTH / 2) < WIDTH / 2 - 4 ? heldAt : null;
  const said = [
    `The dial stands at ${dialNumber(from)}`,
    moves ? `turn it to ${dialNumber(to)}` : null,
    house === null ? null : `it last held at ${dialNumber(house)}`,
  ]
    .filter((part) => part !== null)
    .join('; ');
  return (
    <svg className={classes.strip} viewBox={`0 0 ${WIDTH} 70`} role="img" aria-label={said}>
      <line className={classes.line} x1="4" x2={WIDTH - 4} y1={LINE_Y} y2={LINE_Y} />
      {ticks.map((setting) => {
        const steps0 = Math.round(marksFiner(dial, setting, from) / grinder.stepMarks);
        const major = steps0 % labelled === 0;
        return (
          <g key={setting}>
            <line className={classes.line} x1={x(setting)} x2={x(setting)} y1={LINE_Y} y2={LINE_Y + (major ? 10 : 6)} />
            {major && Math.abs(x(setting) - x(from)) > 26 && (!moves || Math.abs(x(setting) - x(to)) > 26) && (
              <text className={classes.tick} x={x(setting)} y={LINE_Y + 27} textAnchor="middle">
                {dialNumber(setting)}
              </text>
            )}
          </g>
        );
      })}
      <text className={classes.end} x="4" y="12">
        finer
      </text>
      <text className={classes.end} x={WIDTH - 4} y="12" textAnchor="end">
        coarser
      </text>
      {house !== null && (
        <>
          <path className={classes.held} d={`M${x(house)} ${LINE_Y} v-12`} />
          <text className={classes.tick} x={x(house)} y={LINE_Y - 16} textAnchor="middle">
            held
          </text>
        </>
      )}
      {moves && (
        <>
          <path className={classes.arrow} d={`M${x(from)} 24 Q ${(x(from) + x(to)) / 2} 2 ${x(to)} 22`} />
          <path className={classes.head} d={`M${x(to)} 31 l-6 -10 h12 Z`} />
          <text className={classes.to} x={x(to) + apart} y={LINE_Y + 30} textAnchor="middle">
            {dialNumber(to)}
          </text>
        </>
      )}
      <path className={classes.from} d={`M${x(from)} ${LINE_Y - 8} l5 8 -5 8 -5 -8 Z`} />
      <text className={classes.fromText} x={x(from) - apart} y={LINE_Y + 30} textAnchor="middle">
        {dialNumber(from)}
      </text>
    </svg>
  );
}
