import type { Session } from '@tempera/contract/team';
import { daysOfAim, DAYS_TO_A_VERSION } from '@tempera/core/taste';
import { useBar, useStandingFacts } from '../bar/index.ts';
import { KeepAim } from './KeepAim.tsx';

/** On a recipe's page: an aim that has lasted is offered as its next version. */
export function RecipeAim({ recipeId, session }: { recipeId: string; session: Session }) {
  const { data: bar } = useBar();
  const facts = useStandingFacts();
  if (!bar) return null;
  const dayFromMs = Date.parse(bar.memory.upTo);
  return bar.grinders
    .filter(({ id, recipe }) => recipe.recipeId === recipeId && daysOfAim(facts, id, dayFromMs) >= DAYS_TO_A_VERSION)
    .map((grinder) => (
      <div key={grinder.id} className="sheet">
        <KeepAim grinder={grinder} facts={facts} session={session} dayFromMs={dayFromMs} />
      </div>
    ));
}
