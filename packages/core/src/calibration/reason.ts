import type { Flaw, Texture } from '../facts/index.ts';
import type { LockRule } from './adviceCase.ts';

/** What an open portafilter or the cup shows of a bed that was not even. */
type StreamFlaw = Extract<Flaw, 'ring' | 'oneSide' | 'jets' | 'paleEarly'>;

/** Seconds within which a shot is right. */
export interface Window {
  min: number;
  max: number;
}

/**
 * Why an advice was given, as data: a code and its values, in grams, seconds, marks and chances. Words and units are the
 * reader's (`contract/adviceWords.ts`).
 */
export type Reason =
  /** What the last shot was worth. */
  | { code: 'movedUnseen'; heldAt: number; standsAt: number }
  | { code: 'neverHeld' }
  | { code: 'noShotYet' }
  | { code: 'untried' }
  | { code: 'moved'; to: number }
  | { code: 'blend'; oldShare: number }
  | { code: 'noEvidence'; fault: 'channel' | 'prep' }
  | { code: 'choked' }
  | { code: 'doseOff'; byG: number }
  | { code: 'ran'; normalisedS: number; missS: number; window: Window }
  /** What follows. */
  | { code: 'weighDose'; doseG: number; setting: number }
  | { code: 'chances'; from: number; here: number; setting: number; there: number }
  | { code: 'markWorth'; seconds: number; sdS: number }
  | { code: 'overshot' }
  | { code: 'farOut'; slow: boolean }
  | { code: 'addsUp'; shots: number; slow: boolean }
  | { code: 'endOfDial'; setting: number }
  | { code: 'noAnswer' }
  | { code: 'besides'; what: 'bagPast' | 'otherBasket' }
  | { code: 'firstDrop'; firstDropS: number; missS: number }
  | { code: 'basketTakes'; doseG: number; minG: number; maxG: number }
  | { code: 'lastOutside' }
  | { code: 'purge'; grams: number; first: boolean }
  | { code: 'purgeAndRepeat'; grams: number }
  | { code: 'prepareWithCare' }
  | { code: 'houseCounts'; shots: number; setting: number }
  | { code: 'noMarkHolds'; window: Window; nearest: number; timeS: number; chance: number }
  | { code: 'lookElsewhere' }
  | { code: 'noLikelierMark'; shots: number; chance: number }
  | { code: 'countsOn'; counted: number; lockRule: Exclude<LockRule, 'sureness'> }
  | { code: 'sureEnough'; shots: number; setting: number; chance: number }
  | { code: 'trim'; setting: number; byG: number; before: number; after: number }
  | { code: 'trimByYield'; toG: number }
  | { code: 'trimByTamp'; offS: number }
  | { code: 'trimByFeel'; more: boolean }
  | { code: 'felt'; texture: Texture; setting: number }
  | { code: 'startsAt'; setting: number }
  | { code: 'streamSaid'; flaw: StreamFlaw }
  | { code: 'notSureYet'; chance: number; asked: number; costs: { stay: number; move: number; to: number } | null };
