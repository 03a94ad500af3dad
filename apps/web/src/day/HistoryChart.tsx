import { useComputedColorScheme } from '@mantine/core';
import type { GrinderHistory } from '@tempera/contract/day';
import { ewma } from '@tempera/core/day';
import type { ChartOptions } from 'chart.js';
import { useMemo } from 'react';
import { Line } from 'react-chartjs-2';
import { clock, dayWord } from '../kernel/format.ts';
import { axisOf, coloursOf, drawnAtOnce, orderAxis, uprightLine, windowBox, type ChartColours } from '../ui/chart.ts';

/** Sd of one shot where the split says nothing. */
const USUAL_SHOT_SD = 0.055;
/** Beside more shots than these, marks would hide them, and points are small. */
const MOST_SHOTS_MARKED = 90;

const markName = { move: 'collar', bag: 'bag', refill: 'refill', cleaned: 'cleaned', otherHands: 'hands' } as const;

/** Shots in their order against the window; their moving average with its limits; moves, bags and refills as upright lines. */
export default function HistoryChart({ history, timeZone }: { history: GrinderHistory; timeZone: string }) {
  const colours = coloursOf(useComputedColorScheme('light'));
  const { data, options } = useMemo(() => drawn(history, timeZone, colours), [history, timeZone, colours]);
  return <Line data={data} options={options} aria-hidden="true" />;
}

function drawn({ shots, marks, split }: GrinderHistory, timeZone: string, colours: ChartColours) {
  const middles = shots.map(({ lowS, highS }) => Math.sqrt(lowS * highS));
  const lns = shots.map(({ timeS }, i) => Math.log(timeS / (middles[i] ?? timeS)));
  const average = ewma(lns, 0, split?.shotSd ?? USUAL_SHOT_SD);
  const inSeconds = (ln: number, i: number) => ({ x: i, y: (middles[i] ?? 0) * Math.exp(ln) });
  const radius = shots.length > MOST_SHOTS_MARKED ? 2 : 4;
  const line = { pointRadius: 0, borderWidth: 1, borderColor: colours['--chart-flow'] };
  const points = (service: boolean) =>
    shots.flatMap((shot, i) => (shot.service === service ? [{ x: i, y: shot.timeS }] : []));
  const data = {
    datasets: [
      {
        label: 'timed in service',
        data: points(true),
        showLine: false,
        pointRadius: radius,
        pointBackgroundColor: colours['--ink'],
        borderColor: colours['--ink'],
      },
      {
        label: 'dialling in',
        data: points(false),
        showLine: false,
        pointRadius: radius,
        pointStyle: 'crossRot' as const,
        borderColor: colours['--faint-ink'],
      },
      { ...line, label: 'moving average', borderWidth: 3, data: average.map(({ value }, i) => inSeconds(value, i)) },
      { ...line, label: 'its limits', borderDash: [4, 4], data: average.map(({ high }, i) => inSeconds(high, i)) },
      { ...line, label: '', borderDash: [4, 4], data: average.map(({ low }, i) => inSeconds(low, i)) },
    ],
  };
  const last = shots.at(-1);
  const orderOf = (atMs: number): number => shots.filter((shot) => shot.atMs < atMs).length - 0.5;
  const isLong = shots.length > MOST_SHOTS_MARKED;
  const lines = (isLong ? [] : marks).flatMap(({ atMs, what }) => {
    const name = (markName as Partial<Record<string, string>>)[what];
    return name === undefined ? [] : [{ at: orderOf(atMs), name }];
  });
  const axis = axisOf(colours);
  const options: ChartOptions<'line'> = {
    ...drawnAtOnce,
    plugins: {
      legend: { labels: { color: colours['--ink'], filter: ({ text }) => text !== '' } },
      annotation: {
        annotations: {
          ...(last ? { window: { ...windowBox(colours), yMin: last.lowS, yMax: last.highS } } : {}),
          ...Object.fromEntries(
            lines.map(({ at, name }, i) => [`mark${i}`, uprightLine(colours, at, name, i % 2 === 0 ? 'start' : 'end')]),
          ),
        },
      },
    },
    scales: {
      x: orderAxis(colours, shots.length, (at) => {
        const shot = shots[at];
        const oneDay = shots[0]?.day === last?.day;
        return shot && (oneDay ? clock(shot.atMs, timeZone) : dayWord(shot.day));
      }),
      y: { ...axis, title: { ...axis.title, text: 's, at the recipe’s dose and yield' } },
    },
  };
  return { data, options };
}
