import type { CrossCheck, Diagnosis } from '@tempera/core/calibration';
import { z } from 'zod';
import { CHANCE_DIGITS, positive, QUANTITY_DIGITS, recipeLine, rounded } from './line.ts';

/** One line of `npm run -s diagnose`, in and out: a stable contract, like the advice line. */
const MOST_STATIONS = 16;
const MOST_SHOTS = 1_000;
const stationName = z.string().min(1).max(200);

/** Shots of several grinders through several groups. */
export const diagnoseLineSchema = z
  .strictObject({
    recipes: z
      .record(stationName, recipeLine)
      .refine((recipes) => Object.keys(recipes).length > 0, { error: 'at least one grinder needs its recipe' })
      .refine((recipes) => Object.keys(recipes).length <= MOST_STATIONS, {
        error: `at most ${MOST_STATIONS} grinders`,
      }),
    groups: z
      .array(stationName)
      .min(1)
      .max(MOST_STATIONS)
      .refine((groups) => new Set(groups).size === groups.length, { error: 'two groups have one name' }),
    shots: z
      .array(
        z.strictObject({
          grinder: stationName,
          group: stationName,
          doseG: positive,
          yieldG: positive,
          timeS: positive,
          firstDropS: z.number().nonnegative().nullish(),
        }),
      )
      .max(MOST_SHOTS),
  })
  .superRefine(({ recipes, groups, shots }, context) => {
    shots.forEach(({ grinder, group }, i) => {
      if (!Object.hasOwn(recipes, grinder)) {
        context.addIssue({ code: 'custom', path: ['shots', i, 'grinder'], message: 'this grinder has no recipe' });
      }
      if (!groups.includes(group)) {
        context.addIssue({ code: 'custom', path: ['shots', i, 'group'], message: 'this group is not in the list' });
      }
    });
  });

/** A case that was read. */
export type DiagnoseLine = z.infer<typeof diagnoseLineSchema>;

const effect = z.strictObject({ id: z.string(), offS: z.number(), sdS: z.number() });

/** Which of them is off, how surely, and the pair to pull next. */
export const diagnoseAnswerSchema = z.strictObject({
  grinders: z.array(effect),
  groups: z.array(effect),
  finding: z.strictObject({
    kind: z.enum(['grinder', 'group', 'none', 'unsure']),
    id: z.string().nullable(),
    chance: z.number(),
  }),
  next: z.strictObject({ grinder: z.string(), group: z.string() }).nullable(),
});

/** An answer as it is written. */
export type DiagnoseAnswer = z.infer<typeof diagnoseAnswerSchema>;

/** The engine's question of a parsed line. */
export function checkOfLine({ recipes, groups, shots }: DiagnoseLine): CrossCheck {
  return {
    recipes: Object.fromEntries(
      Object.entries(recipes).map(([grinder, recipe]) => [
        grinder,
        { ...recipe, doseToleranceG: recipe.doseToleranceG ?? null },
      ]),
    ),
    groups,
    shots: shots.map((shot) => ({ ...shot, firstDropS: shot.firstDropS ?? null })),
  };
}

/** The answer line of a diagnosis. */
export function answerOfDiagnosis({ grinders, groups, finding, next }: Diagnosis): DiagnoseAnswer {
  const shown = (effects: Diagnosis['grinders']) =>
    effects.map(({ id, offS, sdS }) => ({
      id,
      offS: rounded(offS, QUANTITY_DIGITS),
      sdS: rounded(sdS, QUANTITY_DIGITS),
    }));
  return {
    grinders: shown(grinders),
    groups: shown(groups),
    finding: { ...finding, chance: rounded(finding.chance, CHANCE_DIGITS) },
    next,
  };
}
