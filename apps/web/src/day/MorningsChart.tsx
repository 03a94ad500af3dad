import { useComputedColorScheme } from '@mantine/core';
import type { MorningTold } from '@tempera/contract/day';
import { BarController, BarElement, CategoryScale, Chart } from 'chart.js';
import { useMemo } from 'react';
import { Bar } from 'react-chartjs-2';
import { dayWord } from '../kernel/format.ts';
import { axisOf, coloursOf } from '../ui/chart.ts';
import { earlyMin, minutesOf } from './morningWords.ts';

Chart.register(BarController, BarElement, CategoryScale);

/** Minutes to ready, morning by morning; those that were late stand out, and their table says so. */
export default function MorningsChart({ mornings }: { mornings: readonly MorningTold[] }) {
  const colours = coloursOf(useComputedColorScheme('light'));
  const data = useMemo(
    () => ({
      labels: mornings.map(({ day }) => dayWord(day)),
      datasets: [
        {
          label: 'minutes to ready',
          data: mornings.map((morning) => Math.round(minutesOf(morning))),
          backgroundColor: mornings.map((morning) => colours[earlyMin(morning) < 0 ? '--out' : '--window-edge']),
        },
      ],
    }),
    [mornings, colours],
  );
  const axis = axisOf(colours);
  return (
    <Bar
      data={data}
      aria-hidden="true"
      options={{
        animation: false,
        maintainAspectRatio: false,
        plugins: { legend: { display: false } },
        scales: {
          x: { ...axis, grid: { display: false }, ticks: { color: colours['--faint-ink'] }, title: { display: false } },
          y: { ...axis, beginAtZero: true, title: { ...axis.title, text: 'min from the beginning to the signature' } },
        },
      }}
    />
  );
}
