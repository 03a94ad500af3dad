import { reasonWord, type Writer } from '@tempera/contract/adviceWords';
import type { Advice, Reason } from '@tempera/core/calibration';
import { dialNumber, grams, marks, percent, seconds } from '../kernel/format.ts';

const inTheirUnits: Writer = { grams, seconds, percent, dial: dialNumber };

/** A reason of the engine, in the units of whoever reads it. */
export const reasonSaid = (reason: Reason): string => reasonWord(reason, inTheirUnits);

/** What the last shot was, in words. */
export function judgementTitle({ judgement, action, reasons }: Advice): string {
  switch (judgement.kind) {
    case 'noShot':
      return action === 'move' && reasons.some(({ code }) => code === 'movedUnseen')
        ? 'Moved since it last held'
        : 'No shot yet';
    case 'moved':
      return `The collar stands at ${dialNumber(judgement.to)}`;
    case 'notPurged':
      return 'A blend of two settings';
    case 'noEvidence':
      return judgement.fault === 'channel' ? 'A channel: no evidence' : 'A flawed puck: no evidence';
    case 'choked':
      return 'Choked';
    case 'doseOff':
      return `The dose was ${grams(Math.abs(judgement.byG))} ${judgement.byG > 0 ? 'over' : 'under'}`;
    case 'sound':
      return judgement.missS === 0
        ? 'Inside the window'
        : `${seconds(Math.abs(judgement.missS))} too ${judgement.missS < 0 ? 'fast' : 'slow'}`;
  }
}

/** What to do, as a head barista would call it across the bar. */
export function adviceTitle(advice: Advice, readsDial = true): string {
  switch (advice.action) {
    case 'move':
      return `Turn ${marks(advice.marks)} ${advice.direction ?? ''}${readsDial ? `: ${dialNumber(advice.from)} to ${dialNumber(advice.setting)}` : ''}`;
    case 'lock':
      return readsDial ? `Lock it at ${dialNumber(advice.setting)}` : 'Lock it where it stands';
    case 'dose':
      return `Weigh ${grams(advice.doseG ?? 0)} and pull again`;
    case 'repeat':
      return advice.judgement.kind === 'noShot' || advice.judgement.kind === 'moved'
        ? `Pull a shot${readsDial ? ` at ${dialNumber(advice.from)}` : ''}`
        : againWord(advice);
  }
}

/** What comes before the collar, where something else is known to be the cause. */
const FIRST = { bagPast: 'Another bag first', otherBasket: 'The right basket first' } as const;

const againWord = ({ doseG, because, reasons }: Advice): string => {
  const cause = because === 'besides' ? reasons.find((reason) => reason.code === 'besides') : undefined;
  if (cause) return FIRST[cause.what];
  return doseG === null ? 'Pull the same again' : `Pull again with ${grams(doseG)}`;
};
