import type { CaseShot } from './adviceCase.ts';
import { marksFiner, type Dial } from './dial.ts';
import { engineDefaults } from './engineDefaults.ts';
import { grindThrough, oldShare, oldShareSd, purgeAdviceG, type Chute } from './retention.ts';

export const emptyChute: Chute = { x: null, setting: null };

/** The grounds of one dose: where they were ground, on average, and how sure that is. */
export interface Ground {
  /** Mean marks finer than the reference over the dose. */
  x: number;
  /** Doubt of that mean, from the doubt of the retention. */
  sd: number;
  /** Share of the dose from the setting before, after a move; 0 without one. */
  oldShare: number;
}

/** Where the grain of a shot's dose was ground, and what the chute holds after it. */
export function grindShot(
  chute: Chute,
  shot: Pick<CaseShot, 'setting' | 'doseG' | 'purgedG'>,
  grinder: { dial: Dial; reference: number; retentionG: number | null; recipeDoseG: number },
): { ground: Ground; after: Chute } {
  const { dial, reference, retentionG, recipeDoseG } = grinder;
  const x = marksFiner(dial, shot.setting, reference);
  const held = chute.x ?? x;
  const moved = chute.setting !== null && chute.setting !== shot.setting;
  const purgedG = shot.purgedG ?? (moved ? purgeAdviceG(recipeDoseG, retentionG) : 0);
  const heldG = retentionG ?? engineDefaults.retentionUnknownG;
  const share = oldShare(shot.doseG, purgedG, heldG);
  return {
    ground: {
      x: x + (held - x) * share,
      sd: Math.abs(held - x) * oldShareSd(shot.doseG, purgedG, retentionG),
      oldShare: moved ? share : 0,
    },
    after: { x: grindThrough({ x: held }, x, purgedG + shot.doseG, heldG).x, setting: shot.setting },
  };
}
