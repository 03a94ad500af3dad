import type { GrinderHistory } from '@tempera/contract/day';
import { usualDay, type Habit } from '@tempera/core/calibration';
import { happeningWord } from '../journal/index.ts';
import { dialNumber, grams, seconds } from '../kernel/format.ts';

type Split = NonNullable<GrinderHistory['split']>;

/** "97 of 100 timed shots were inside in a week." */
export function capabilityWord({ inside, of }: GrinderHistory['capability'], since: string): string {
  if (of === 0) return `No customer's shot was timed ${since}; those below were pulled while dialling in.`;
  return `${inside} of ${of} timed shots ${of === 1 ? 'was' : 'were'} inside ${since}.`;
}

/** Where most of the spread comes from, and what would narrow it. */
export function spreadWord({ stretchSd, handsSd, shotSd }: Split): string {
  const most = Math.max(stretchSd, handsSd, shotSd);
  if (most === handsSd) return 'The spread is mostly between hands: how the dose and the tamp are done.';
  if (most === stretchSd) return "The spread is mostly the grinder's over the day: looking sooner would narrow it.";
  return 'The spread is mostly from shot to shot, as a bed of coffee does: the grinder stands well.';
}

const MIDDLE_SHARE = 2;

/** "Noor: 0.4 s faster than the house on this grinder, give or take 0.3 s, of 31 shots." */
export function handsWord(
  { offLn, sdLn, shots: n }: Split['hands'][number],
  name: string,
  shots: GrinderHistory['shots'],
): string {
  const last = shots.at(-1);
  const middleS = last ? (last.lowS + last.highS) / MIDDLE_SHARE : 0;
  const offS = Math.abs(Math.expm1(offLn) * middleS);
  const doubtS = sdLn * middleS;
  const of = `of ${n} ${n === 1 ? 'shot' : 'shots'}`;
  const doubt = `give or take ${seconds(doubtS)}`;
  if (offS < doubtS) return `${name}: as the house, ${doubt}, ${of}.`;
  return `${name}: ${seconds(offS)} ${offLn < 0 ? 'faster' : 'slower'} than the house, ${doubt}, ${of}.`;
}

/** Less than this is nobody's habit; and a change counts as one once it is so many times its doubt. */
const HABIT_S = 0.4;
const HABIT_SDS = 1.5;

/** "Day after day it slows by 1.4 s in its first 3 hours, give or take 0.5 s. That is foreseen." Null where its days go no one way. */
export function habitWord(habit: Habit, middleS: number): string | null {
  const parts = usualDay(habit).flatMap(({ fromH, toH, changeLn, sd }) => {
    const changeS = Math.abs(Math.expm1(changeLn)) * middleS;
    if (changeS < HABIT_S || Math.abs(changeLn) < HABIT_SDS * sd) return [];
    const when = fromH === 0 ? `in its first ${toH} hours` : `from hour ${fromH} to ${toH}`;
    return [
      `${changeLn > 0 ? 'slows' : 'runs faster'} by ${seconds(changeS)} ${when}, give or take ${seconds(sd * middleS)}`,
    ];
  });
  if (parts.length === 0) return null;
  return `Day after day it ${parts.join('; ')}. That is foreseen.`;
}

/** A line of the table beside the chart. */
interface Line {
  id: string;
  atMs: number;
  says: string;
  more: string;
}

/** Shots, doses and what happened between them, newest first. */
export function historyLines({ shots, marks, doses }: GrinderHistory, nameOf: (id: string) => string): Line[] {
  const ofShots = shots.map((shot): Line => ({
    id: shot.factId,
    atMs: shot.atMs,
    says: `${seconds(shot.timeS)} at ${dialNumber(shot.setting)}, ${shot.inside ? 'inside' : shot.timeS < shot.lowS ? 'fast' : 'slow'}`,
    more: [shot.service ? 'in service' : 'dialling in', shot.personId === null ? '' : nameOf(shot.personId)]
      .filter(Boolean)
      .join(', '),
  }));
  const ofMarks = marks.map(({ atMs, what, from, to }, i): Line => ({
    id: `mark ${atMs} ${i}`,
    atMs,
    says:
      what === 'move'
        ? `Collar from ${dialNumber(from ?? 0)} to ${dialNumber(to ?? 0)}`
        : what === 'bag'
          ? 'Another bag'
          : happeningWord[what],
    more: '',
  }));
  const ofDoses = doses.map(({ factId, atMs, doseG, inside, aimG }): Line => ({
    id: factId,
    atMs,
    says: `Dose ${grams(doseG)}, ${inside ? 'inside' : doseG < aimG ? 'under' : 'over'}`,
    more: '',
  }));
  return [...ofShots, ...ofMarks, ...ofDoses].toSorted((a, b) => b.atMs - a.atMs);
}
