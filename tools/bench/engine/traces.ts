import { readTrace } from '@tempera/core/capture';
import { drawTrace } from '@tempera/core/practice';
import type { Figure } from '../figure.ts';
import { percentOf, quantile } from '../statistics.ts';

const TRACES = 1_000;
const NEAR_S = 0.3;

/** Traces of sound and of channelled shots, with lost samples and knocks. */
export function measureTraces(): Figure[] {
  const read = (channelled: boolean) =>
    Array.from({ length: TRACES }, (_, i) => {
      const truth = drawTrace(i + 1, channelled);
      return { truth, reading: readTrace(truth.trace) };
    });
  const sound = read(false);
  // A channel that would have opened after the stop never was one.
  const channelled = read(true).filter(({ truth }) => truth.channel);
  const sawChannel = ({ reading }: (typeof sound)[number]): boolean =>
    reading.signs.some(({ kind }) => kind === 'channel');
  const offBy = sound.map(({ truth, reading }) => Math.abs(reading.yieldG - truth.yieldG));
  return [
    {
      name: 'traces: first drop within 0.3 s',
      value: percentOf(
        sound,
        ({ truth, reading }) => Math.abs((reading.firstDropS ?? Infinity) - truth.firstDropS) <= NEAR_S,
      ),
      unit: '%',
      aim: 'at least 95',
    },
    { name: 'traces: channels seen', value: percentOf(channelled, sawChannel), unit: '%', aim: 'at least 80' },
    { name: 'traces: channels seen in sound shots', value: percentOf(sound, sawChannel), unit: '%', aim: 'at most 5' },
    { name: 'traces: yield off by, p95', value: quantile(offBy, 0.95), unit: 'g' },
  ];
}
