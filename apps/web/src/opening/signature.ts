import type { JobState } from '@tempera/core/opening';
import { moment } from '../kernel/format.ts';
import type { MorningView } from './useMorning.ts';

/** Who signed for the run in hand, and when; null as long as nobody did. */
export const signatureOf = ({ states }: Pick<MorningView, 'states'>): JobState | null =>
  states.find(({ job, standing }) => job.kind === 'signOff' && standing === 'done') ?? null;

/** "Signed by Ines, today 14:50". */
export const signedWord = ({ personId, atMs }: JobState, { nameOf, nowMs }: MorningView, timeZone: string): string =>
  `Signed by ${nameOf(personId)}${atMs === null ? '' : `, ${moment(atMs, timeZone, nowMs)}`}`;
