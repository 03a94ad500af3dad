import { groupOf, knownOf, windowMiddleS } from '@tempera/core/calibration';
import { grams, seconds } from '../kernel/format.ts';
import type { BenchView } from './useBench.ts';

const give = (value: string, doubt: string): string => `${value}, give or take ${doubt}`;
/** A person's doubt: two sd hold nineteen times in twenty. */
const SDS = 2;
/** Below this a group is as good as any other. */
const WORTH_SAYING_S = 0.05;
const TENTH_G = 0.1;

/** What the engine holds of a bench, in seconds and grams, each with its doubt. */
export function whatIsKnown({ advice, grinder, group, target }: BenchView): { what: string; says: string }[] {
  const { line, bar } = advice.fit;
  const atS = windowMiddleS(target.timeS);
  const stepS = (perMark: number): number => perMark * grinder.stepMarks * atS;
  const dose = (line.doseExponent * TENTH_G * atS) / target.doseG;
  const groupKnown = knownOf(bar, groupOf(group.id));
  const offS = (groupKnown?.mean ?? 0) * atS;
  const groupSays =
    Math.abs(offS) < WORTH_SAYING_S
      ? give('neither fast nor slow', seconds(SDS * (groupKnown?.sd ?? 0) * atS))
      : give(`${seconds(Math.abs(offS))} ${offS > 0 ? 'slow' : 'fast'}`, seconds(SDS * (groupKnown?.sd ?? 0) * atS));
  return [
    {
      what: grinder.stepMarks === 1 ? 'One mark finer' : `${grinder.stepMarks} marks finer`,
      says: give(`${seconds(stepS(line.response))} slower`, seconds(SDS * stepS(Math.sqrt(line.responseVariance)))),
    },
    { what: 'Two shots alike', says: `differ by up to ${seconds(SDS * Math.sqrt(2 * line.shotVariance) * atS)}` },
    { what: `${grams(TENTH_G)} more coffee`, says: `about ${seconds(dose)} slower` },
    ...(groupKnown ? [{ what: group.name, says: groupSays }] : []),
    { what: 'The next check', says: `in ${advice.nextCheckMin} min if it were locked now` },
  ];
}
