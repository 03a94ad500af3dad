import { Chart, Filler, Legend, LinearScale, LineElement, PointElement } from 'chart.js';
import annotationPlugin from 'chartjs-plugin-annotation';
import { roles } from '../kernel/theme.ts';

/** What every chart shares: its parts, its type, its axes. Charts are loaded late, and this with them. */
Chart.defaults.font = { family: "'Source Sans 3 Variable', sans-serif", size: 14 };
Chart.register(LinearScale, LineElement, PointElement, Filler, Legend, annotationPlugin);

export type ChartColours = (typeof roles)['light'];

export const coloursOf = (scheme: 'light' | 'dark'): ChartColours => roles[scheme];

/** A mark on an axis as it is read: the locale's own formatter costs a tablet a tenth of a second at each first chart. */
const TICK_DIGITS = 6;
const tickWord = (value: number | string): string => String(Number(Number(value).toFixed(TICK_DIGITS)));

export function axisOf(colours: ChartColours) {
  const ink = colours['--faint-ink'];
  return {
    grid: { color: colours['--line'] },
    ticks: { color: ink, callback: tickWord },
    title: { display: true, color: ink },
  };
}

/** How charts of ours are drawn: at once, as tall as their place, from points that are in order already. */
export const drawnAtOnce = { animation: false, maintainAspectRatio: false, parsing: false, normalized: true } as const;

const MOST_WORDS = 8;

/** An axis of things in their order, each called by a word where there is room. @param wordOf nothing: there is none at this place */
export function orderAxis(colours: ChartColours, count: number, wordOf: (at: number) => string | undefined) {
  const axis = axisOf(colours);
  return {
    ...axis,
    type: 'linear' as const,
    min: -0.5,
    max: count - 0.5,
    title: { display: false },
    ticks: {
      ...axis.ticks,
      maxTicksLimit: MOST_WORDS,
      callback: (value: number | string): string => wordOf(Number(value)) ?? '',
    },
  };
}

/** An upright dashed line with its name at one end. */
export function uprightLine(colours: ChartColours, x: number, name: string, position: 'start' | 'end') {
  return {
    type: 'line' as const,
    xMin: x,
    xMax: x,
    borderColor: colours['--faint-ink'],
    borderWidth: 1.5,
    borderDash: [2, 3],
    label: {
      display: true,
      content: name,
      position,
      backgroundColor: colours['--sheet'],
      color: colours['--faint-ink'],
      padding: 3,
    },
  };
}

/** The window or the target drawn behind the lines. */
export function windowBox(colours: ChartColours) {
  return {
    type: 'box' as const,
    drawTime: 'beforeDatasetsDraw' as const,
    backgroundColor: `${colours['--window']}55`,
    borderColor: colours['--window-edge'],
    borderWidth: 1,
  };
}
