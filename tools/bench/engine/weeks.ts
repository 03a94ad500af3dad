import { runTwoWeeks, type TwoWeeks } from '@tempera/core/practice';
import type { Figure } from '../figure.ts';
import { mean } from '../statistics.ts';

const GRINDERS = 500;

/** The same grinder on its first morning and a week later, with what was learned since. */
export function measureWeeks(): Figure[] {
  const weeks = Array.from({ length: GRINDERS }, (_, i) => runTwoWeeks(i + 1));
  const shots = (of: keyof TwoWeeks): number => mean(weeks.map((week) => week[of].shots));
  return [
    {
      name: 'second week: shots relative to the first day',
      value: shots('second') / shots('first'),
      unit: '',
      aim: 'at most 0.9',
    },
    {
      name: 'second week: shots relative to an engine without memory',
      value: shots('second') / shots('secondWithoutMemory'),
      unit: '',
    },
  ];
}
