import { median } from '../numbers/index.ts';

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

/** The level of some readings, whatever a few of them do: their median; 0 of none. */
export const levelOf = (readings: readonly number[]): number => (readings.length === 0 ? 0 : median(readings));

/** Grams in the cup at the end of a trace; 0 for an empty one. */
export function lastMassG({ massG }: MassTrace): number {
  return massG.findLast((mass) => mass !== null) ?? 0;
}
