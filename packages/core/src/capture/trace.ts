/** Mass on the scale at a steady rate from pump start; null where a sample was lost. */
export interface MassTrace {
  hz: number;
  massG: readonly (number | null)[];
}

/** What a trace shows beside the shot itself. */
export type SignKind = 'channel' | 'spurt' | 'knock' | 'tareJump' | 'cupLifted' | 'gap' | 'choke';

export interface Sign {
  kind: SignKind;
  atS: number;
}

/** The middle value; of an even number the lower of the two in the middle; 0 of none. */
export function median(values: readonly number[]): number {
  const sorted = [...values].sort((a, b) => a - b);
  return sorted[Math.floor((sorted.length - 1) / 2)] ?? 0;
}

/** Grams in the cup at the end of a trace; 0 for an empty one. */
export function lastMassG({ massG }: MassTrace): number {
  return massG.findLast((mass) => mass !== null) ?? 0;
}
