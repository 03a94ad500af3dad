import { flowGps, type GoodBand, type MassTrace } from '@tempera/core/capture';
import { useComputedColorScheme } from '@mantine/core';
import type { ChartOptions } from 'chart.js';
import { useMemo } from 'react';
import { Line } from 'react-chartjs-2';
import { axisOf, coloursOf, uprightLine, windowBox, type ChartColours } from '../ui/chart.ts';
import { numberShown, unitShown } from '../kernel/units.ts';

export interface LiveChartProps {
  trace: MassTrace;
  firstDropS: number | null;
  stoppedAtS: number | null;
  recipe: { yieldG: number; timeMinS: number; timeMaxS: number };
  /** Between what masses the house's good shots ran; null where there are too few. */
  band: GoodBand | null;
}

const FLOW_AXIS_GPS = 5;
const ROOM_ABOVE = 1.2;

/** The end of an axis: whole grams, or as many ounces as those are. */
const topOf = (g: number): number => numberShown('g', Math.ceil(g));

/** Mass and flow as they run, against the recipe's yield and time window. */
export function LiveChart({ trace, firstDropS, stoppedAtS, recipe, band }: LiveChartProps) {
  const colours = coloursOf(useComputedColorScheme('light'));
  const data = useMemo(() => {
    const at = (i: number): number => i / trace.hz;
    return {
      datasets: [
        {
          label: `mass, ${unitShown('g')}`,
          data: trace.massG.map((mass, i) => ({ x: at(i), y: numberShown('g', mass ?? Number.NaN) })),
          borderColor: colours['--chart-mass'],
          borderWidth: 3,
          pointRadius: 0,
          yAxisID: 'mass',
        },
        {
          label: `flow, ${unitShown('g')}/s`,
          data: flowGps(trace).map((flow, i) => ({ x: at(i), y: numberShown('g', flow) })),
          borderColor: colours['--chart-flow'],
          borderWidth: 2,
          pointRadius: 0,
          yAxisID: 'flow',
        },
        ...bandSets(band, colours),
      ],
    };
  }, [trace, colours, band]);
  const options = useMemo(
    () => chartOptions(colours, recipe, firstDropS, stoppedAtS),
    [colours, recipe, firstDropS, stoppedAtS],
  );
  return <Line data={data} options={options} aria-hidden="true" />;
}

/** The band of good shots: its upper edge filled down to its lower. */
function bandSets(band: GoodBand | null, colours: ChartColours) {
  if (!band) return [];
  const edge = (masses: readonly number[]) => masses.map((mass, i) => ({ x: i / band.hz, y: numberShown('g', mass) }));
  const plain = { borderWidth: 0, pointRadius: 0, yAxisID: 'mass', borderColor: colours['--window-edge'] };
  return [
    { ...plain, label: 'good shots', data: edge(band.highG), fill: '+1', backgroundColor: `${colours['--window']}88` },
    { ...plain, label: '', data: edge(band.lowG), fill: false },
  ];
}

function chartOptions(
  colours: ChartColours,
  recipe: LiveChartProps['recipe'],
  firstDropS: number | null,
  stoppedAtS: number | null,
): ChartOptions<'line'> {
  const ink = colours['--faint-ink'];
  const axis = axisOf(colours);
  return {
    animation: false,
    maintainAspectRatio: false,
    parsing: false,
    normalized: true,
    scales: {
      x: {
        ...axis,
        type: 'linear',
        min: 0,
        max: Math.ceil(recipe.timeMaxS * ROOM_ABOVE),
        title: { ...axis.title, text: 'seconds' },
      },
      mass: {
        ...axis,
        type: 'linear',
        min: 0,
        max: topOf(recipe.yieldG * ROOM_ABOVE),
        title: { ...axis.title, text: unitShown('g') },
      },
      flow: {
        ...axis,
        type: 'linear',
        position: 'right',
        min: 0,
        max: topOf(Math.max(FLOW_AXIS_GPS, Math.ceil((3 * recipe.yieldG) / recipe.timeMinS))),
        grid: { display: false },
        title: { ...axis.title, text: `${unitShown('g')}/s` },
      },
    },
    plugins: {
      legend: {
        labels: { color: ink, boxHeight: 3, boxWidth: 26, filter: ({ text }) => text !== '' },
        align: 'start',
      },
      annotation: {
        annotations: {
          window: { ...windowBox(colours), xMin: recipe.timeMinS, xMax: recipe.timeMaxS },
          target: {
            type: 'line',
            yScaleID: 'mass',
            yMin: numberShown('g', recipe.yieldG),
            yMax: numberShown('g', recipe.yieldG),
            borderColor: colours['--window-edge'],
            borderWidth: 2,
          },
          ...(firstDropS === null ? {} : { firstDrop: uprightLine(colours, firstDropS, 'first drop', 'end') }),
          ...(stoppedAtS === null ? {} : { stop: uprightLine(colours, stoppedAtS, 'stop', 'end') }),
        },
      },
    },
  };
}
