import { useComputedColorScheme } from '@mantine/core';
import type { GrinderHistory } from '@tempera/contract/day';
import { useMemo } from 'react';
import { Line } from 'react-chartjs-2';
import { clock, dayWord } from '../kernel/format.ts';
import { axisOf, coloursOf, drawnAtOnce, orderAxis, windowBox } from '../ui/chart.ts';

/** Beside more doses than these, points are small. */
const MANY = 90;

/** Doses on the scale in their order, each by how far it was from what it was meant to be; the band is the last one's tolerance. */
export default function DosesChart({ doses, timeZone }: { doses: GrinderHistory['doses']; timeZone: string }) {
  const colours = coloursOf(useComputedColorScheme('light'));
  const data = useMemo(
    () => ({
      datasets: [
        {
          label: 'doses',
          data: doses.map(({ doseG, aimG }, i) => ({ x: i, y: doseG - aimG })),
          showLine: false,
          pointRadius: doses.length > MANY ? 2 : 4,
          pointBackgroundColor: doses.map(({ inside }) => colours[inside ? '--ink' : '--out']),
          borderColor: colours['--ink'],
        },
      ],
    }),
    [doses, colours],
  );
  const axis = axisOf(colours);
  const within = doses.at(-1)?.toleranceG ?? 0;
  const oneDay = doses[0]?.day === doses.at(-1)?.day;
  return (
    <Line
      data={data}
      aria-hidden="true"
      options={{
        ...drawnAtOnce,
        plugins: {
          legend: { display: false },
          annotation: { annotations: { window: { ...windowBox(colours), yMin: -within, yMax: within } } },
        },
        scales: {
          x: orderAxis(colours, doses.length, (at) => {
            const dose = doses[at];
            return dose && (oneDay ? clock(dose.atMs, timeZone) : dayWord(dose.day));
          }),
          y: {
            ...axis,
            suggestedMin: -2 * within,
            suggestedMax: 2 * within,
            title: { ...axis.title, text: 'g over or under' },
          },
        },
      }}
    />
  );
}
