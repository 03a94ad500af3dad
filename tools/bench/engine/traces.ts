import { goodStart, readTrace, type TraceReading } from '@tempera/core/capture';
import { drawRestlessTrace, drawStart, drawTrace, type DrawnTrace } from '@tempera/core/practice';
import type { Figure } from '../figure.ts';
import { percentOf, quantile } from '../statistics.ts';

const TRACES = 1_000;

interface Read {
  truth: DrawnTrace;
  reading: TraceReading;
}

const sawChannel = ({ reading }: Read): boolean => reading.signs.some(({ kind }) => kind === 'channel');
const nearDrop =
  (withinS: number) =>
  ({ truth, reading }: Read): boolean =>
    Math.abs((reading.firstDropS ?? Infinity) - truth.firstDropS) <= withinS;

/** Traces of sound and of channelled shots: under a steady scale with lost samples and knocks, and under a restless one. */
export function measureTraces(): Figure[] {
  return [...figuresOf('traces', drawTrace, 0.3), ...figuresOf('restless scale', drawRestlessTrace, 0.4), ...starts()];
}

function figuresOf(name: string, draw: typeof drawTrace, nearS: number): Figure[] {
  const read = (channelled: boolean): Read[] =>
    Array.from({ length: TRACES }, (_, i) => {
      const truth = draw(i + 1, channelled);
      return { truth, reading: readTrace(truth.trace) };
    });
  const sound = read(false);
  // A channel that would have opened after the stop never was one.
  const channelled = read(true).filter(({ truth }) => truth.channel);
  const offBy = sound.map(({ truth, reading }) => Math.abs(reading.yieldG - truth.yieldG));
  return [
    {
      name: `${name}: first drop within ${nearS} s`,
      value: percentOf(sound, nearDrop(nearS)),
      unit: '%',
      aim: 'at least 95',
    },
    { name: `${name}: channels seen`, value: percentOf(channelled, sawChannel), unit: '%', aim: 'at least 80' },
    { name: `${name}: channels seen in sound shots`, value: percentOf(sound, sawChannel), unit: '%', aim: 'at most 3' },
    { name: `${name}: yield off by, p95`, value: quantile(offBy, 0.95), unit: 'g' },
  ];
}

/** Channels that were open from the first drops, told by the house's good shots; from hardly to half as much flow again. */
function starts(): Figure[] {
  const read = (channelled: boolean): Read[] =>
    Array.from({ length: TRACES }, (_, i) => {
      const { good, shot } = drawStart(i + 1, channelled);
      return { truth: shot, reading: readTrace(shot.trace, goodStart(good)) };
    });
  return [
    { name: 'open at once: channels seen', value: percentOf(read(true), sawChannel), unit: '%' },
    {
      name: 'open at once: channels seen in sound shots',
      value: percentOf(read(false), sawChannel),
      unit: '%',
      aim: 'at most 3',
    },
  ];
}
