/** Nothing that a scale says is longer; what is, is noise on the wire. */
const LONGEST_LINE = 200;

/**
 * Puts lines together from whatever pieces a wire delivers: half lines wait for their end, bursts come apart, CR, LF and
 * both end a line, empty lines are dropped.
 * @returns takes the next piece, gives the lines that it completes
 */
export function lineReader(): (piece: string) => string[] {
  let rest = '';
  return (piece) => {
    const parts = (rest + piece).split(/[\r\n]+/);
    rest = (parts.pop() ?? '').slice(-LONGEST_LINE);
    return parts.map((line) => line.trim()).filter((line) => line !== '' && line.length <= LONGEST_LINE);
  };
}
