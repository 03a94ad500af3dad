import { useComputedColorScheme } from '@mantine/core';
import type { DayTold } from '@tempera/contract/day';
import { useMemo } from 'react';
import { Line } from 'react-chartjs-2';
import { dateWord } from '../kernel/format.ts';
import { axisOf, coloursOf, drawnAtOnce, orderAxis, windowBox } from '../ui/chart.ts';
import { sharedWindow, timesOf } from './daysWords.ts';

/** Each day's mean time, as it would be in the window of now, and a band of one sd about it. */
export default function DaysChart({ days }: { days: readonly DayTold[] }) {
  const colours = coloursOf(useComputedColorScheme('light'));
  const windowS = sharedWindow(days);
  const data = useMemo(() => {
    const told = days.map((day) => timesOf(day, days));
    const line = { pointRadius: 0, borderWidth: 1, borderColor: colours['--chart-flow'], spanGaps: true };
    const points = (pick: 'meanS' | 'lowS' | 'highS') =>
      told.flatMap((times, x) => (times ? [{ x, y: times[pick] }] : []));
    return {
      datasets: [
        { ...line, label: 'mean of the day', pointRadius: 2, borderWidth: 2, data: points('meanS') },
        { ...line, label: 'where two of three shots were', borderDash: [4, 4], data: points('highS') },
        { ...line, label: '', borderDash: [4, 4], data: points('lowS') },
      ],
    };
  }, [days, colours]);
  const axis = axisOf(colours);
  return (
    <Line
      data={data}
      aria-hidden="true"
      options={{
        ...drawnAtOnce,
        plugins: {
          legend: { labels: { color: colours['--ink'], filter: ({ text }) => text !== '' } },
          annotation: {
            annotations: windowS ? { window: { ...windowBox(colours), yMin: windowS.min, yMax: windowS.max } } : {},
          },
        },
        scales: {
          x: orderAxis(colours, days.length, (at) => {
            const day = days[at];
            return day && dateWord(day.day);
          }),
          y: { ...axis, title: { ...axis.title, text: 's, at the recipe’s dose and yield' } },
        },
      }}
    />
  );
}
