import { useComputedColorScheme } from '@mantine/core';
import { useThrottledValue } from '@mantine/hooks';
import { flowGps, type GoodBand, type MassTrace } from '@tempera/core/capture';
import type { ChartOptions } from 'chart.js';
import { useMemo } from 'react';
import { Line } from 'react-chartjs-2';
import { useAfterFirst } from '../kernel/afterFirst.ts';
import { numberShown, unitShown } from '../kernel/units.ts';
import { axisOf, coloursOf, uprightLine, type ChartColours } from '../ui/chart.ts';

/** The time window at the yield. */
interface Gate {
  yieldG: number;
  timeMinS: number;
  timeMaxS: number;
}

export interface LiveChartProps {
  trace: MassTrace;
  firstDropS: number | null;
  stoppedAtS: number | null;
  recipe: Gate;
  /** Between what masses the house's good shots ran; null where there are too few. */
  band: GoodBand | null;
}

/** Drawing is dear on a bar's tablet; faster than this nobody sees a ribbon grow. */
const REDRAW_MS = 200;
const ROOM_ABOVE = 1.22;
/** The ribbon of a flow that fills the gate's middle is this much of the axis thick. */
const THICK_SHARE = 0.035;
/** Thinner than this nobody sees it from a metre. */
const THIN_SHARE = 0.008;
/** How far the gate's posts stand above and below the yield. */
const POST_SHARE = 0.09;

/**
 * A shot as one ribbon on one axis: grams over seconds, as thick as it flows, past the ghost of the house's good shots and through
 * the gate, which is the time window at the yield.
 */
export function LiveChart({ trace, firstDropS, stoppedAtS, recipe, band }: LiveChartProps) {
  const colours = coloursOf(useComputedColorScheme('light'));
  const { yieldG, timeMinS, timeMaxS } = recipe;
  const drawn = useThrottledValue(trace, REDRAW_MS);
  // The gate by its numbers: a recipe that was read anew is the same gate, and nothing but the ribbon is drawn again.
  const gateOf = useMemo(() => ({ yieldG, timeMinS, timeMaxS }), [yieldG, timeMinS, timeMaxS]);
  const ghost = useMemo(() => ghostSets(band, colours), [band, colours]);
  // Making a chart and filling it are, on a tablet, each as long as a finger should wait.
  const whole = useAfterFirst();
  const data = useMemo(
    () => ({ datasets: whole ? [...ribbonSets(drawn, gateOf, colours), ...ghost] : [] }),
    [whole, drawn, gateOf, colours, ghost],
  );
  const options = useMemo(
    () => chartOptions(colours, gateOf, whole ? { firstDropS, stoppedAtS } : null),
    [whole, colours, gateOf, firstDropS, stoppedAtS],
  );
  return <Line data={data} options={options} updateMode="none" aria-hidden="true" />;
}

const plain = { borderWidth: 0, pointRadius: 0 };

/** Samples to either side that a drawn one is the mean of: a scale shows tenths, and a ribbon has no teeth. */
const SMOOTH_OVER = 4;

function smooth(values: readonly (number | null)[]): (number | null)[] {
  return values.map((value, i) => {
    if (value === null) return null;
    const near = values.slice(Math.max(0, i - SMOOTH_OVER), i + SMOOTH_OVER + 1).filter((one) => one !== null);
    return near.reduce<number>((total, one) => total + one, 0) / near.length;
  });
}

/** Upper edge, filled down to the lower; between them the mass, and beside it half of the flow's thickness each way. */
function ribbonSets(trace: MassTrace, recipe: Gate, colours: ChartColours) {
  const topG = recipe.yieldG * ROOM_ABOVE;
  const evenGps = (2.6 * recipe.yieldG) / (recipe.timeMinS + recipe.timeMaxS);
  const flows = smooth(flowGps(trace));
  const masses = smooth(trace.massG);
  const edge = (sign: number) =>
    masses.map((mass, i) => {
      const flow = Math.max(0, flows[i] ?? 0) / evenGps;
      const half = mass === null || mass < 1e-9 ? 0 : (topG * Math.max(THIN_SHARE, THICK_SHARE * flow)) / 2;
      return { x: i / trace.hz, y: numberShown('g', mass === null ? Number.NaN : Math.max(0, mass + sign * half)) };
    });
  return [
    { ...plain, label: 'high', data: edge(1), fill: '+1', backgroundColor: colours['--chart-mass'] },
    { ...plain, label: 'low', data: edge(-1), fill: false, borderWidth: 2, borderColor: colours['--chart-mass'] },
  ];
}

/** The ghost of the good shots: between what masses eight in ten of them ran. */
function ghostSets(band: GoodBand | null, colours: ChartColours) {
  if (!band) return [];
  const edge = (masses: readonly number[]) => masses.map((mass, i) => ({ x: i / band.hz, y: numberShown('g', mass) }));
  return [
    {
      ...plain,
      label: 'good high',
      data: edge(band.highG),
      fill: '+1',
      backgroundColor: `${colours['--chart-flow']}44`,
    },
    { ...plain, label: 'good low', data: edge(band.lowG), fill: false },
  ];
}

function chartOptions(
  colours: ChartColours,
  recipe: Gate,
  marked: Pick<LiveChartProps, 'firstDropS' | 'stoppedAtS'> | null,
): ChartOptions<'line'> {
  const axis = axisOf(colours);
  const READABLE_PX = 16;
  const ticks = { ...axis.ticks, font: { size: READABLE_PX }, maxTicksLimit: 6, includeBounds: false };
  return {
    animation: false,
    maintainAspectRatio: false,
    parsing: false,
    normalized: true,
    scales: {
      x: {
        ...axis,
        ticks,
        type: 'linear',
        min: 0,
        max: Math.ceil(recipe.timeMaxS * ROOM_ABOVE),
        title: { display: false },
        grid: { display: false },
      },
      y: {
        ...axis,
        ticks,
        type: 'linear',
        min: 0,
        max: numberShown('g', Math.ceil(recipe.yieldG * ROOM_ABOVE)),
        title: { ...axis.title, text: `${unitShown('g')} over s` },
      },
    },
    plugins: {
      legend: { display: false },
      annotation: {
        annotations: marked ? { ...gate(colours, recipe), ...moments(colours, marked) } : {},
      },
    },
  };
}

/** First drop and stop, where they were seen. */
function moments(colours: ChartColours, { firstDropS, stoppedAtS }: Pick<LiveChartProps, 'firstDropS' | 'stoppedAtS'>) {
  return {
    ...(firstDropS === null ? {} : { firstDrop: uprightLine(colours, firstDropS, 'first drop', 'end') }),
    ...(stoppedAtS === null ? {} : { stop: uprightLine(colours, stoppedAtS, 'stop', 'start') }),
  };
}

/** Two posts at the window's ends and a beam at the yield: the ribbon should run through between the posts. */
function gate(colours: ChartColours, { yieldG, timeMinS, timeMaxS }: Gate) {
  const [low, high] = [(1 - POST_SHARE) * yieldG, (1 + POST_SHARE) * yieldG].map((g) => numberShown('g', g));
  const y = numberShown('g', yieldG);
  const line = { type: 'line' as const, borderColor: colours['--window-edge'] };
  const post = (x: number) => ({ ...line, xMin: x, xMax: x, yMin: low, yMax: high, borderWidth: 5 });
  return {
    opening: {
      type: 'box' as const,
      drawTime: 'beforeDatasetsDraw' as const,
      xMin: timeMinS,
      xMax: timeMaxS,
      yMin: low,
      yMax: high,
      backgroundColor: `${colours['--window']}66`,
      borderWidth: 0,
    },
    beam: { ...line, xMin: timeMinS, xMax: timeMaxS, yMin: y, yMax: y, borderWidth: 2 },
    early: post(timeMinS),
    late: post(timeMaxS),
  };
}
