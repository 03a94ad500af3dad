import { useComputedColorScheme } from '@mantine/core';
import type { CoffeeUse } from '@tempera/contract/coffee';
import { shown } from '@tempera/core/house';
import { BarController, BarElement, CategoryScale, Chart, Tooltip } from 'chart.js';
import { useMemo } from 'react';
import { Bar } from 'react-chartjs-2';
import { axisOf, coloursOf } from '../ui/chart.ts';
import { dayWord } from '../kernel/format.ts';
import { unitsNow } from '../kernel/units.ts';

Chart.register(BarController, BarElement, CategoryScale, Tooltip);

/** Grams for calibrating, day by day, one stack a day, one part a grinder. */
export default function UseChart({ use, nameOf }: { use: CoffeeUse; nameOf: (id: string) => string }) {
  const colours = coloursOf(useComputedColorScheme('light'));
  const data = useMemo(() => {
    const days = [...new Set(use.days.map(({ day }) => day))].toReversed();
    const grinders = [...new Set(use.days.map(({ grinderId }) => grinderId))];
    const fills = [colours['--window'], colours['--chart-flow'], colours['--line-strong'], colours['--window-edge']];
    const gramsOn = (day: string, id: string): number =>
      use.days.find((entry) => entry.day === day && entry.grinderId === id)?.calibrationG ?? 0;
    return {
      labels: days.map(dayWord),
      datasets: grinders.map((id, i) => ({
        label: nameOf(id),
        data: days.map((day) => shown('mass', gramsOn(day, id), unitsNow())),
        backgroundColor: fills[i % fills.length] ?? colours['--ink'],
        borderColor: colours['--sheet'],
        borderWidth: 1,
      })),
    };
  }, [use, nameOf, colours]);
  const axis = axisOf(colours);
  return (
    <Bar
      aria-label="Grams for calibrating, by day and grinder; the table under it says the same"
      role="img"
      data={data}
      options={{
        animation: false,
        maintainAspectRatio: false,
        plugins: { legend: { labels: { color: colours['--ink'] } } },
        scales: {
          x: { ...axis, stacked: true, title: { display: false } },
          y: { ...axis, stacked: true, title: { ...axis.title, text: unitsNow().mass } },
        },
      }}
    />
  );
}
