import { readTrace, type GoodStart, type SignKind } from '@tempera/core/capture';
import type { Flaw, ShotBody } from '@tempera/core/facts';

/** What the trace of a shot shows that a barista should know of. */
export interface TraceSign {
  says: string;
  /** What the shot may be marked as for it; null where only the scale was disturbed. */
  flaw: Flaw | null;
}

const at = (atS: number): string => `at ${atS.toFixed(0)} s`;

/** Gravest first: what spoils the puck comes before what only spoils the reading. */
const signs: [SignKind, (atS: number) => TraceSign][] = [
  ['choke', () => ({ says: 'Hardly anything ran: a choke.', flaw: 'choke' })],
  ['channel', (atS) => ({ says: `The flow jumped ${at(atS)}: it looks like a channel.`, flaw: 'channel' })],
  ['spurt', (atS) => ({ says: `It spurted ${at(atS)}: look at the puck.`, flaw: 'uneven' })],
  ['cupLifted', (atS) => ({ says: `The cup was lifted ${at(atS)}.`, flaw: null })],
  ['tareJump', (atS) => ({ says: `The scale jumped ${at(atS)}: weigh the cup again.`, flaw: null })],
  ['knock', (atS) => ({ says: `The scale was knocked ${at(atS)}; the reading leaves it out.`, flaw: null })],
  ['gap', (atS) => ({ says: `The scale was silent ${at(atS)}.`, flaw: null })],
];

/**
 * The gravest sign on a shot's trace; null where there is none, or no trace.
 * @param good how the house's good shots on this station begin
 */
export function traceSign(
  { trace, timeS }: Pick<ShotBody, 'trace' | 'timeS'>,
  good: GoodStart | null,
): TraceSign | null {
  if (!trace?.massG.some((massG) => massG !== null)) return null;
  const found = readTrace({ ...trace, pumpOffS: timeS }, good).signs;
  for (const [kind, sayOf] of signs) {
    const sign = found.find((one) => one.kind === kind);
    if (sign) return sayOf(sign.atS);
  }
  return null;
}
