import type { TrialCup } from './trialModel.ts';
import type { TrialState } from './trialPlan.ts';

/** What a trial would write into a recipe. */
export interface DraftedRecipe {
  doseG: number;
  yieldG: number;
  timeMinS: number;
  timeMaxS: number;
  tempC: number;
  /** Doubt of each, one sd. */
  doubt: { yieldG: number; timeS: number };
}

/** A window that a bar can hold is about so wide, whatever the tongue would ask. */
const USUAL_WIDTH_S = 5;
/** Scales and dials are read to these. */
const TO = { doseG: 0.1, yieldG: 0.5, tempC: 0.5 };

const roundTo = (value: number, step: number): number => Number((Math.round(value / step) * step).toFixed(1));

/** The recipe as far as the trial knows it: its cup at the best, and a window about its time. */
export function draftedRecipe({ cup, sd }: TrialState['best']): DraftedRecipe {
  const middleS = Math.round(cup.timeS * 2) / 2;
  const doseG = roundTo(cup.doseG, TO.doseG);
  return {
    doseG,
    yieldG: roundTo(doseG * cup.ratio, TO.yieldG),
    timeMinS: Math.round(middleS - USUAL_WIDTH_S / 2),
    timeMaxS: Math.round(middleS - USUAL_WIDTH_S / 2) + USUAL_WIDTH_S,
    tempC: roundTo(cup.tempC, TO.tempC),
    doubt: { yieldG: yieldDoubtG(cup, sd), timeS: sd.timeS },
  };
}

/** Of dose times ratio, to first order. */
const yieldDoubtG = (cup: TrialCup, sd: TrialCup): number => Math.hypot(cup.doseG * sd.ratio, cup.ratio * sd.doseG);
