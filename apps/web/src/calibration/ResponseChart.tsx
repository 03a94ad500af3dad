import { useComputedColorScheme } from '@mantine/core';
import type { Advice, AdviceCase } from '@tempera/core/calibration';
import type { ChartOptions } from 'chart.js';
import { useMemo } from 'react';
import { Line } from 'react-chartjs-2';
import { axisOf, coloursOf, uprightLine, windowBox, type ChartColours } from '../ui/chart.ts';
import { dialNumber } from '../kernel/format.ts';
import { curveOf, shotPoints } from './responseCurve.ts';

/** Shot time over the dial: the curve that the engine believes in, its doubt, the window, and the shots it rests on. */
export default function ResponseChart({ input, advice }: { input: AdviceCase; advice: Advice }) {
  const colours = coloursOf(useComputedColorScheme('light'));
  const curve = useMemo(() => curveOf(input, advice), [input, advice]);
  const points = useMemo(() => shotPoints(input, advice), [input, advice]);
  const options = useMemo(() => {
    const range = { low: curve[0]?.setting ?? 0, high: curve.at(-1)?.setting ?? 0 };
    return chartOptions(colours, input, advice, range);
  }, [colours, input, advice, curve]);
  const line = { pointRadius: 0, borderColor: colours['--chart-flow'] };
  const data = {
    datasets: [
      {
        ...line,
        label: 'expected',
        data: curve.map(({ setting, timeS }) => ({ x: setting, y: timeS })),
        borderWidth: 3,
      },
      {
        ...line,
        label: 'eight shots in ten',
        data: curve.map(({ setting, highS }) => ({ x: setting, y: highS })),
        borderWidth: 1,
        borderDash: [4, 4],
        fill: '+1',
        backgroundColor: `${colours['--chart-flow']}26`,
      },
      {
        ...line,
        label: '',
        data: curve.map(({ setting, lowS }) => ({ x: setting, y: lowS })),
        borderWidth: 1,
        borderDash: [4, 4],
      },
      {
        label: 'shots',
        data: points.filter(({ counts }) => counts).map(({ setting, timeS }) => ({ x: setting, y: timeS })),
        showLine: false,
        pointRadius: 6,
        pointBackgroundColor: colours['--ink'],
        borderColor: colours['--ink'],
      },
      {
        label: 'shots that count for little',
        data: points.filter(({ counts }) => !counts).map(({ setting, timeS }) => ({ x: setting, y: timeS })),
        showLine: false,
        pointRadius: 6,
        pointStyle: 'crossRot' as const,
        pointBorderWidth: 2,
        borderColor: colours['--out'],
      },
    ],
  };
  return <Line data={data} options={options} aria-hidden="true" />;
}

function chartOptions(
  colours: ChartColours,
  input: AdviceCase,
  advice: Advice,
  range: { low: number; high: number },
): ChartOptions<'line'> {
  const ink = colours['--faint-ink'];
  const axis = axisOf(colours);
  const { min, max } = input.recipe.timeS;
  return {
    animation: false,
    maintainAspectRatio: false,
    parsing: false,
    normalized: true,
    scales: {
      // Finer lies to the left, as on the dial's strip.
      x: {
        ...axis,
        type: 'linear',
        reverse: input.dial.finer === 'up',
        min: range.low,
        max: range.high,
        ticks: { color: ink, callback: (value) => dialNumber(Number(value)) },
        title: { ...axis.title, text: 'dial (finer to the left)' },
      },
      y: { ...axis, type: 'linear', title: { ...axis.title, text: 'seconds at the recipe' } },
    },
    plugins: {
      legend: {
        labels: {
          color: ink,
          boxHeight: 0,
          boxWidth: 26,
          filter: ({ text, datasetIndex }, { datasets }) =>
            text !== '' && (datasets[datasetIndex ?? 0]?.data.length ?? 0) > 0,
        },
        align: 'start',
      },
      annotation: {
        annotations: {
          window: { ...windowBox(colours), yMin: min, yMax: max },
          now: uprightLine(colours, advice.from, advice.action === 'move' ? 'now' : 'here', 'start'),
          ...(advice.action === 'move' ? { advised: uprightLine(colours, advice.setting, 'advised', 'start') } : {}),
        },
      },
    },
  };
}
