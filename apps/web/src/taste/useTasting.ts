import type { Bar, Grinder } from '@tempera/contract/bar';
import { benchGrinderOf, benchTargetOf, dialOf } from '@tempera/contract/station';
import {
  benchState,
  cleanSetting,
  collarStandsAt,
  engineDefaults,
  expectAt,
  fitCase,
  normalisedTime,
  purgeAdviceG,
  settingAt,
  shotMiss,
  usualResponse,
} from '@tempera/core/calibration';
import { ofGrinder, ofKind, stepsOf, type FactOf, type StandingFacts } from '@tempera/core/facts';
import {
  biasOf,
  canChange,
  judgeTaste,
  leverEffects,
  leverSteps,
  sheetOf,
  tastedChanges,
  tasteAimOf,
  tasterBiases,
  tasteTable,
  usualSteps,
  windowShiftS,
  type LeverSteps,
  type TasteChange,
} from '@tempera/core/taste';
import { useCallback, useMemo } from 'react';
import { useLearned } from '../bar/index.ts';
import { useWriteFacts, useWriteStep } from '../kernel/facts.tsx';

/** From when the sheets speak of the cup as it is poured now: the last change for taste, or the last turn of the collar. */
function cupFromMs(facts: StandingFacts, grinderId: string, dayFromMs: number): number {
  const settled = stepsOf(facts, 'tasteSettled').filter(
    ({ body }) => body.grinderId === grinderId && body.change !== null,
  );
  const moved = ofKind(ofGrinder(facts, grinderId), 'collarMove');
  return Math.max(dayFromMs, ...[...settled, ...moved].map(({ at }) => Date.parse(at)));
}

/** Whether the machine that poured the cup lets its temperature be set; where nobody said which, whether any does. */
const setsTemp = ({ machines }: Bar, groupId: string | null): boolean =>
  (machines.find(({ groups }) => groups.some(({ id }) => id === groupId)) ?? machines.find((one) => one.setsTemp))
    ?.setsTemp ?? false;

/** How far the levers of each grinder go at a time: a mark is worth what its shots taught, what the house says, or the usual. */
function useStepsAt(bar: Bar): (grinderId: string) => LeverSteps {
  const learned = useLearned().data?.grinders;
  return useCallback(
    (grinderId) => {
      const grinder = bar.grinders.find(({ id }) => id === grinderId);
      if (!grinder) return usualSteps;
      const taughtS = learned?.find(({ id }) => id === grinderId)?.secondsPerMark;
      const secondsPerMark = taughtS ?? grinder.secondsPerMark;
      return leverSteps(
        grinder.stepMarks,
        usualResponse({ recipe: benchTargetOf(grinder), secondsPerMark, dial: dialOf(grinder) }),
      );
    },
    [bar.grinders, learned],
  );
}

/**
 * How far outside its window the cup ran that is tasted, s, where that is more than a shot's own scatter: then the numbers come
 * first. 0: it ran as it should, or its time says little.
 * @param fromMs shots before it were of another cup
 */
function ranOutS(grinder: Grinder, shot: FactOf<'shot'> | null, fromMs: number): number {
  // A single's time says nothing of the double's window.
  if (shot?.body.recipeVersionId !== grinder.recipe.id || grinder.dualWalled || Date.parse(shot.at) < fromMs) return 0;
  const { normalisedS, missS } = shotMiss(shot.body, benchTargetOf(grinder));
  return Math.abs(missS) > engineDefaults.shotSd * normalisedS ? missS : 0;
}

/**
 * What was tasted of a grinder since its cup last changed, and what the house makes of it.
 * @param dayFromMs nothing before it is today's
 */
export function useTasting(bar: Bar, grinder: Grinder, facts: StandingFacts, dayFromMs: number, nowMs: number) {
  const write = useWriteStep();
  const writeFacts = useWriteFacts();
  const { house } = bar;
  const stepsAt = useStepsAt(bar);
  const taught = useMemo(() => {
    const sheets = stepsOf(facts, 'tasted').map(sheetOf);
    const changes = tastedChanges(facts, stepsAt);
    const biases = tasterBiases(sheets);
    return { biases, changes, effects: leverEffects(changes, house.lessDose) };
  }, [facts, house.lessDose, stepsAt]);
  const fromMs = cupFromMs(facts, grinder.id, dayFromMs);
  const steps = stepsOf(facts, 'tasted').filter(
    ({ at, body }) => body.grinderId === grinder.id && Date.parse(at) >= dayFromMs,
  );
  const now = steps.filter(({ at }) => Date.parse(at) >= fromMs);
  const lastShot = ofKind(ofGrinder(facts, grinder.id), 'shot').findLast(({ body }) => body.flaw === null) ?? null;
  const setting = collarStandsAt(ofGrinder(facts, grinder.id)) ?? grinder.seedSetting;
  const table = tasteTable(now.map(sheetOf), biasOf(taught.biases));
  const can = canChange({
    aim: grinder.recipe,
    basketG: grinder.basketG,
    mostDoseG: grinder.recipe.doseNoMore ? (grinder.before ?? grinder.recipe).doseG : null,
    setsTemp: setsTemp(bar, lastShot?.groupId ?? null),
    dial: dialOf(grinder),
    setting,
  });
  const verdict =
    table &&
    judgeTaste(table.mean, grinder.recipe.taste ?? tasteAimOf(grinder), house.tasteLever, taught.effects, {
      steps: stepsAt(grinder.id),
      can,
    });
  const stateNow = () =>
    benchState(facts, benchGrinderOf(grinder, bar.recipesNamed), benchTargetOf(grinder), house, nowMs, null);
  const grindTimeS = (doseG: number): number | null => {
    const state = stateNow();
    return state.grindTimeS(doseG, state.setting);
  };
  /**
   * Where the collar stands and where a change leads it, and how far the window goes with all that is changed: a cup that tongues
   * made longer or turned is not turned back by the clock.
   */
  const carriedOut = (changes: readonly TasteChange[]): { from: number; to: number; windowS: number } => {
    const byOf = (lever: TasteChange['lever']): number => changes.find((change) => change.lever === lever)?.by ?? 0;
    const from = setting;
    const to = cleanSetting(
      Math.min(grinder.dialMax, Math.max(grinder.dialMin, settingAt(dialOf(grinder), byOf('grind'), from))),
    );
    const { adviceCase } = stateNow();
    // Of a grinder that nobody has pulled a shot on, nothing says how far a mark goes.
    if (adviceCase.shots.length === 0 && !adviceCase.held) return { from, to, windowS: 0 };
    const fit = fitCase(adviceCase, from);
    const { recipe } = adviceCase;
    const before = { ...recipe, timeS: expectAt(fit, adviceCase, to, byOf('dose')).timeS, firstDropS: null };
    const after = normalisedTime(before, { ...recipe, yieldG: recipe.yieldG * (1 + byOf('yield')) });
    const nowS = expectAt(fit, adviceCase, from).timeS;
    return { from, to, windowS: windowShiftS(recipe.timeS, nowS, after.normalisedS) };
  };

  /** A change is carried out: the aim follows from its step, and a turn of the collar is written as one, with its purge. */
  const settle = (changes: readonly TasteChange[]): void => {
    if (changes.length === 0) write({ step: 'tasteSettled', grinderId: grinder.id, change: null });
    const { from, to, windowS } = carriedOut(changes);
    for (const { lever, by } of changes) write({ step: 'tasteSettled', grinderId: grinder.id, change: { lever, by } });
    if (windowS !== 0) {
      write({ step: 'tasteSettled', grinderId: grinder.id, change: { lever: 'window', by: windowS } });
    }
    if (!changes.some(({ lever }) => lever === 'grind')) return;
    const at = { grinderId: grinder.id, groupId: null };
    writeFacts([
      { kind: 'collarMove', ...at, body: { from, to, advisedTo: to } },
      { kind: 'purge', ...at, body: { purgeG: purgeAdviceG(grinder.recipe.doseG, grinder.retentionG) } },
    ]);
  };
  return {
    ...taught,
    today: steps,
    now,
    table,
    verdict,
    can,
    outS: ranOutS(grinder, lastShot, fromMs),
    lastShot,
    grindTimeS,
    setting,
    carriedOut,
    settle,
    write,
  };
}

export type Tasting = ReturnType<typeof useTasting>;
