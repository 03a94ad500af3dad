import type { ServiceAdvice } from '@tempera/core/day';
import { dialWord, percentWord, reasonWord, type Writer } from './adviceWords.ts';

/** Reasons of the bench that tell what the last shot was worth; what follows from it is another thing in service. */
const WHAT_IT_WAS = new Set([
  'noShotYet',
  'untried',
  'moved',
  'blend',
  'noEvidence',
  'choked',
  'doseOff',
  'ran',
  'firstDrop',
  'streamSaid',
]);

/** What to do in service, in one sentence. */
function serviceWord(served: ServiceAdvice, writer: Writer): string {
  const { action, setting, purgeG, doseG, tampS, asksToLook, outside, byBench } = served;
  const now = `${percentWord(outside)} of the cups would run outside`;
  if (byBench) return 'That is no small drift: it is answered as at the bench, and the next shot is timed.';
  if (action === 'move') {
    return `Between two orders: to ${dialWord(setting)}, and ${writer.grams(purgeG)} into the knock box. Then ${now}.`;
  }
  if (tampS !== null) {
    return `Tamp a touch ${tampS > 0 ? 'firmer' : 'lighter'}, worth ${writer.seconds(Math.abs(tampS))}, and leave the collar: a person's doing, and the next shot says whether it does.`;
  }
  if (action === 'repeat' && doseG !== null) {
    return `Weigh ${writer.grams(doseG)} from now on, with its grind time, and leave the collar. Then ${now}.`;
  }
  if (action === 'repeat') return `Back to the recipe's dose, and leave the collar. Then ${now}.`;
  if (asksToLook) return `Time the next shot before anything is turned: ${now} as it stands, as far as anybody knows.`;
  return `Leave it: ${now} as it stands.`;
}

/** Why, in service: what to do, then what the last shot said. */
export const serviceReasons = (served: ServiceAdvice, writer: Writer): string[] => [
  serviceWord(served, writer),
  ...served.bench.reasons
    .filter(({ code }) => served.byBench || WHAT_IT_WAS.has(code))
    .map((reason) => reasonWord(reason, writer)),
];
