import { ofKind, type FactOf, type StandingFacts } from '../facts/index.ts';
import { MS_PER_DAY } from '../numbers/index.ts';

/** Two moves of one collar that do not fit: each was made without knowing of the other. */
export interface CollarDispute {
  earlier: FactOf<'collarMove'>;
  later: FactOf<'collarMove'>;
}

/**
 * The last two moves of a collar where the later one began elsewhere than the earlier one ended: two tablets were apart, and
 * only the dial itself knows. Null where they fit, where a later word on the dial settled it, or after a day.
 * @param own facts of one grinder
 */
export function collarDispute(own: StandingFacts, nowMs: number): CollarDispute | null {
  const moves = ofKind(own, 'collarMove');
  const later = moves.at(-1);
  const earlier = moves.at(-2);
  if (!later || !earlier || nowMs - Date.parse(later.at) > MS_PER_DAY) return null;
  // Whoever poured or locked in between at the later one's mark had seen the dial there.
  const seenThere = own.some(
    (fact) =>
      (fact.kind === 'shot' || fact.kind === 'lock') &&
      fact.at > earlier.at &&
      fact.at < later.at &&
      fact.body.setting === later.body.from,
  );
  if (seenThere) return null;
  return later.body.from === earlier.body.to ? null : { earlier, later };
}
