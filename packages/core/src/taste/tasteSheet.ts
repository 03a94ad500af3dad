import type { StepFact, StepOf } from '../facts/index.ts';

/** What a taster says of a cup, 0 to 10 each. Sour and bitter are two axes: a cup can be both. */
export const tasteAxes = ['acidity', 'bitterness', 'sweetness', 'body', 'strength', 'finish'] as const;
export type TasteAxis = (typeof tasteAxes)[number];
/** Null: nobody touched that axis, and it says nothing. */
export type Tasted = Record<TasteAxis, number | null>;

export const untasted: Tasted = {
  acidity: null,
  bitterness: null,
  sweetness: null,
  body: null,
  strength: null,
  finish: null,
};

/** How a cup was against the one before it, where nobody wanted to say more. */
export const comparisons = ['same', 'better', 'worse'] as const;
export type Comparison = (typeof comparisons)[number];

/** One taster's sheet of one cup. */
export interface TasteSheet {
  tasterId: string;
  atMs: number;
  /** The shot that was tasted; null where nobody said which. */
  shotId: string | null;
  tasted: Tasted;
  than: Comparison | null;
}

const MIDDLE = 5;
const MOST = 10;

/** A sheet as it was written. Older ones knew one axis from sour to bitter: below its middle it spoke of acidity, above of bitterness. */
export function sheetOf({ at, body }: StepFact<StepOf<'tasted'>>): TasteSheet {
  const { tasterId, sourBitter, weakStrong, sweetness } = body;
  return {
    tasterId,
    atMs: Date.parse(at),
    shotId: body.shotId ?? null,
    than: body.than ?? null,
    tasted: {
      acidity: body.acidity ?? (sourBitter !== null && sourBitter <= MIDDLE ? MOST - sourBitter : null),
      bitterness: body.bitterness ?? (sourBitter !== null && sourBitter >= MIDDLE ? sourBitter : null),
      sweetness,
      body: body.body,
      strength: body.strength ?? weakStrong,
      finish: body.finish ?? null,
    },
  };
}
