import { z } from 'zod';

/** Numbers that another page proposes for a recipe, and why; handed over with the way here. */
const draftSchema = z.object({
  draft: z.object({
    recipe: z
      .object({
        name: z.string(),
        doseG: z.number(),
        yieldG: z.number(),
        timeMinS: z.number(),
        timeMaxS: z.number(),
        tempC: z.number(),
      })
      .partial(),
    why: z.string(),
  }),
});
export type RecipeDraft = z.infer<typeof draftSchema>['draft'];

/** The draft that came with the way here; null: nobody proposes anything. */
export const draftOfState = (state: unknown): RecipeDraft | null => draftSchema.safeParse(state).data?.draft ?? null;
