import { cleanSetting } from '../calibration/index.ts';
import { stepsOf, type StandingFacts } from '../facts/index.ts';
import type { ServicePolicy, TasteLever } from '../house/index.ts';
import { MS_PER_HOUR } from '../numbers/index.ts';
import { sheetOf, type Tasted } from './tasteSheet.ts';
import { tasteTable } from './tasteTable.ts';

/** One step of each lever, small enough to taste the difference and to go back on; share of the yield, marks, g, degC. */
export type LeverSteps = Record<TasteLever, number>;
export const usualSteps: LeverSteps = { yield: 0.06, grind: 1, dose: 0.3, temperature: 1 };

/** A turn of the collar is tasted from this share of the shot's time upward: a mark of the usual 2.5 s. */
const GRIND_SHARE = 0.09;

/**
 * The steps of a grinder's levers: a collar that turns by tenths of a mark is turned by as many as a tongue can tell.
 * @param stepMarks the collar's smallest step
 * @param shareAMark by what share of the shot's time a mark moves it
 */
export const leverSteps = (stepMarks: number, shareAMark: number): LeverSteps => ({
  ...usualSteps,
  grind: cleanSetting(stepMarks * Math.max(1, Math.round(GRIND_SHARE / (shareAMark * stepMarks)))),
});

/** The axes that a lever is turned for. */
export const leverAxes = ['acidity', 'bitterness', 'strength'] as const;
export type LeverAxis = (typeof leverAxes)[number];

/** What one step up does, in points of the sheet, and how sure that is (one sd). */
interface LeverEffect {
  mean: number;
  sd: number;
}
export type LeverEffects = Record<TasteLever, Record<LeverAxis, LeverEffect>>;

/**
 * Before a house's own cups say otherwise: a longer yield draws more out and thins it; finer draws more out and
 * strengthens; more dose strengthens, and draws out less (or, as others find, more bitterness); hotter draws more out.
 */
const usualEffects: Record<TasteLever, Record<LeverAxis, number>> = {
  yield: { acidity: -1, bitterness: 1, strength: -1 },
  grind: { acidity: -1, bitterness: 1, strength: 1 },
  dose: { acidity: 1, bitterness: -1, strength: 1 },
  temperature: { acidity: -1, bitterness: 1, strength: 0 },
};
const LESS_BITTER: Record<LeverAxis, number> = { acidity: 0, bitterness: 1, strength: 1 };

/** Doubt of the table, and how far one taster's word on the same change lies from another's; points. */
const TABLE_SD = 1;
const WORD_SD = 1.5;

/** A cup before a change and a cup after it. */
export interface TastedChange {
  lever: TasteLever;
  /** How many of the lever's steps up. */
  steps: number;
  before: Tasted;
  after: Tasted;
}

/** The table of the house: the usual one, with what tastings before and after a change have taught (normal, known variances). */
export function leverEffects(
  changes: readonly TastedChange[],
  lessDose: ServicePolicy['lessDose'] = 'lessSour',
): LeverEffects {
  const effect = (lever: TasteLever, axis: LeverAxis): LeverEffect => {
    const usualMean = lever === 'dose' && lessDose === 'lessBitter' ? LESS_BITTER[axis] : usualEffects[lever][axis];
    let precision = 1 / TABLE_SD ** 2;
    let weighted = usualMean * precision;
    for (const { lever: changed, steps, before, after } of changes) {
      const [was, is] = [before[axis], after[axis]];
      if (changed !== lever || was === null || is === null || steps === 0) continue;
      const weight = steps ** 2 / WORD_SD ** 2;
      weighted += ((is - was) / steps) * weight;
      precision += weight;
    }
    return { mean: weighted / precision, sd: Math.sqrt(1 / precision) };
  };
  const of = (lever: TasteLever): Record<LeverAxis, LeverEffect> => ({
    acidity: effect(lever, 'acidity'),
    bitterness: effect(lever, 'bitterness'),
    strength: effect(lever, 'strength'),
  });
  return { yield: of('yield'), grind: of('grind'), dose: of('dose'), temperature: of('temperature') };
}

/** Tastings further apart than this are of two days. */
const SAME_SITTING_MS = 6 * MS_PER_HOUR;

/**
 * Every single change for taste that was tasted before and after it; two at once teach nothing of either.
 * @param stepsAt the steps of a grinder's levers
 */
export function tastedChanges(
  facts: StandingFacts,
  stepsAt: (grinderId: string) => LeverSteps = () => usualSteps,
): TastedChange[] {
  const sheets = stepsOf(facts, 'tasted');
  // A window that went with a turn of the collar is no change of the cup.
  const settled = stepsOf(facts, 'tasteSettled').filter(({ body }) => body.change && body.change.lever !== 'window');
  return settled.flatMap(({ at, body: { grinderId, change } }): TastedChange[] => {
    if (change === null || change.lever === 'window') return [];
    const atMs = Date.parse(at);
    const own = settled.filter(({ body }) => body.grinderId === grinderId).map((step) => Date.parse(step.at));
    if (own.filter((otherMs) => Math.abs(otherMs - atMs) < AT_ONCE_MS).length > 1) return [];
    const sinceMs = Math.max(atMs - SAME_SITTING_MS, ...own.filter((otherMs) => otherMs < atMs));
    const untilMs = Math.min(atMs + SAME_SITTING_MS, ...own.filter((otherMs) => otherMs > atMs));
    const between = (fromMs: number, toMs: number) =>
      tasteTable(
        sheets
          .filter((sheet) => sheet.body.grinderId === grinderId)
          .filter((sheet) => Date.parse(sheet.at) >= fromMs && Date.parse(sheet.at) < toMs)
          .map(sheetOf),
      );
    const [before, after] = [between(sinceMs, atMs), between(atMs, untilMs)];
    if (!before || !after) return [];
    return [
      {
        lever: change.lever,
        steps: change.by / stepsAt(grinderId)[change.lever],
        before: before.mean,
        after: after.mean,
      },
    ];
  });
}

/** What was written within so long of each other was done in one go. */
const AT_ONCE_MS = 60_000;
