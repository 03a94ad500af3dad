import { digitsShown, numberShown, unitShown } from '../kernel/units.ts';

/**
 * The one sign for a number against its window: the window drawn, a mark where the number fell, a whisker for doubt.
 * Inside, the mark is a lozenge; outside, a wedge that points the way it missed.
 */
export interface BandProps {
  name: string;
  value: number | null;
  window: BandWindow;
  unit: string;
  doubt?: { low: number; high: number } | undefined;
  digits?: number;
}

/** Where a number should lie. Where it is asked for, give or take something, a miss is counted from what was asked. */
export interface BandWindow {
  low: number;
  high: number;
  aim?: number;
}

/** The window of what is asked for, give or take. */
export const around = (aim: number, reach: number): BandWindow => ({ low: aim - reach, high: aim + reach, aim });

/** The window takes this share of the drawing; the rest shows how far a miss is. */
const WINDOW_SHARE = 0.4;
const LOZENGE = 'M0 -8 L7 0 L0 8 L-7 0 Z';
const WEDGE = { low: 'M6 -8 L-8 0 L6 8 Z', high: 'M-6 -8 L8 0 L-6 8 Z' };

type Side = 'low' | 'inside' | 'high';

/** A miss that would be written as nothing is none: "0.00 over" helps nobody. */
function sideOf(value: number, { low, high }: BandProps['window'], digits: number): Side {
  const shown = 0.5 * 10 ** -digits;
  if (low - value >= shown) return 'low';
  return value - high >= shown ? 'high' : 'inside';
}

/** "inside", "1.2 s over": over the window, or over what was asked for. */
export function bandWord(value: number, window: BandProps['window'], unit: string, digits = 1): string {
  const side = sideOf(value, window, digits);
  if (side === 'inside') return 'inside';
  const from = window.aim ?? (side === 'low' ? window.low : window.high);
  return `${Math.abs(value - from).toFixed(digits)}${unit === '' ? '' : ` ${unit}`} ${side === 'low' ? 'under' : 'over'}`;
}

const windowWord = ({ low, high }: BandProps['window'], digits: number): string =>
  `${Number(low.toFixed(digits + 1))} to ${Number(high.toFixed(digits + 1))}`;

/** A band in the units that this person reads. */
export function asRead(band: BandProps): BandProps {
  const { value, window, unit, doubt, digits = 1 } = band;
  if (unitShown(unit) === unit) return band;
  const stretch = ({ low, high }: { low: number; high: number }) => ({
    low: numberShown(unit, low),
    high: numberShown(unit, high),
  });
  const { aim } = window;
  return {
    ...band,
    value: value === null ? null : numberShown(unit, value),
    window: { ...stretch(window), ...(aim === undefined ? {} : { aim: numberShown(unit, aim) }) },
    doubt: doubt && stretch(doubt),
    unit: unitShown(unit),
    digits: digitsShown(unit, digits),
  };
}

export function Band(band: BandProps) {
  const { name, value, window, unit, doubt, digits = 1 } = asRead(band);
  const width = window.high - window.low;
  const start = window.low - (width * (1 - WINDOW_SHARE)) / 2 / WINDOW_SHARE;
  const span = width / WINDOW_SHARE;
  const at = (number: number): string => `${Math.min(99, Math.max(1, (100 * (number - start)) / span))}%`;
  const side = value === null ? null : sideOf(value, window, digits);
  const said =
    value === null ? 'not known' : `${value.toFixed(digits)} ${unit}, ${bandWord(value, window, unit, digits)}`;
  return (
    <svg className="band" role="img" aria-label={`${name}: ${said}; window ${windowWord(window, digits)} ${unit}`}>
      <line className="band-line" x1="0" x2="100%" y1="15" y2="15" />
      <rect className="band-window" x={at(window.low)} width={`${100 * WINDOW_SHARE}%`} y="8" height="14" />
      {[window.low, window.high].map((edge) => (
        <line key={edge} className="band-edge" x1={at(edge)} x2={at(edge)} y1="4" y2="26" />
      ))}
      {doubt && (
        <g className="band-doubt">
          <line x1={at(doubt.low)} x2={at(doubt.high)} y1="15" y2="15" />
          <line x1={at(doubt.low)} x2={at(doubt.low)} y1="10" y2="20" />
          <line x1={at(doubt.high)} x2={at(doubt.high)} y1="10" y2="20" />
        </g>
      )}
      {value !== null && side !== null && (
        <svg x={at(value)} y="15" overflow="visible">
          <path className="band-mark" data-out={side !== 'inside'} d={side === 'inside' ? LOZENGE : WEDGE[side]} />
        </svg>
      )}
    </svg>
  );
}
