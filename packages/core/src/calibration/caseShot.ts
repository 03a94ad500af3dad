import type { FactOf, Flaw } from '../facts/index.ts';
import type { CaseShot, ShotFault } from './adviceCase.ts';

const faultOfFlaw: Record<Flaw, ShotFault> = {
  channel: 'channel',
  uneven: 'prep',
  wrongDose: 'prep',
  choke: 'choke',
  other: 'prep',
  // What an open portafilter shows: water along the edge, through one side, in jets, or through part of the bed only.
  ring: 'prep',
  oneSide: 'prep',
  jets: 'channel',
  paleEarly: 'channel',
};

/** A shot's fact as the engine hears it. @param purgedG grams purged since the last shot or collar move */
export function caseShotOf({ at, personId, groupId, body }: FactOf<'shot'>, purgedG: number): CaseShot {
  const { setting, doseG, yieldG, timeS, firstDropS, flaw, measured } = body;
  const fault = flaw === null ? null : faultOfFlaw[flaw];
  return {
    atMs: Date.parse(at),
    setting,
    doseG,
    yieldG,
    timeS,
    firstDropS,
    purgedG,
    fault,
    ...(flaw === null ? {} : { flaw }),
    group: groupId,
    by: personId,
    ...(measured ? { measured } : {}),
  };
}
