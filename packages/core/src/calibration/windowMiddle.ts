/** The window's middle on the log scale, where shot noise is even to both sides. */
export function windowMiddleS(timeS: { min: number; max: number }): number {
  return Math.sqrt(timeS.min * timeS.max);
}
