import type { NewEntry, NewFact, NewStep } from '@tempera/contract/journal';
import { sentences } from '@tempera/contract/sentences';
import { stationsOf, type StepBody } from '@tempera/core/facts';
import { problem, ProblemError } from '../kernel/problems.ts';

/** Whether what a fact names is of its café, as SQL, so that checking and keeping it are one statement. */

/** Values of a statement that is put together from parts. */
export function parameters() {
  const values: unknown[] = [];
  return {
    values,
    /** @returns the placeholder of a value */
    add: (value: unknown): string => `$${values.push(value)}`,
  };
}

type Add = ReturnType<typeof parameters>['add'];

/** SQL that is true where all is well, by a name of each check; and what is thrown for the first that is not. */
export interface Checks {
  checks: Record<string, string>;
  refuse: (found: Record<string, unknown>) => void;
}

/** What must be true of everything that an entry names. @param $ gives the placeholder of a value */
export const checksOf = (fact: NewEntry, $: Add): Checks =>
  fact.kind === 'step' ? checksOfStep(fact, $) : checksOfFact(fact, $);

const inSite = (table: string, id: string, site: string): string =>
  `(${id}::uuid IS NULL OR EXISTS (SELECT 1 FROM ${table} WHERE id = ${id} AND site_id = ${site}))`;

/** The step that another one is about; null: none. */
function targetOf(body: StepBody): string | null {
  if (body.step === 'takenBack') return body.takesBack;
  if (body.step === 'noteDone') return body.noteId;
  return body.step === 'takenOver' ? body.handedOverId : null;
}

/** People whom a step names beside its author. */
function peopleOf(body: StepBody): string[] {
  if (body.step === 'planned') return body.people.map(({ personId }) => personId);
  return body.step === 'tasted' || body.step === 'trialTasted' ? [body.tasterId] : [];
}

/** Everything that a step names must belong to its café: stations, people, and a step that it takes back. */
function checksOfStep({ siteId, body }: NewStep, $: Add): Checks {
  const { machineId = null, grinderId = null, groupId = null } = stationsOf(body);
  const site = $(siteId);
  const claimed = $(body.step === 'begun' || body.step === 'skipped' ? body.stationId : null);
  const target = $(targetOf(body));
  const ofStations = ['machine', 'grinder', 'group_head']
    .map((table) => `SELECT 1 FROM ${table} WHERE id = ${claimed} AND site_id = ${site}`)
    .join(' UNION ALL ');
  return {
    checks: {
      is_station: [
        inSite('machine', $(machineId), site),
        inSite('grinder', $(grinderId), site),
        inSite('group_head', $(groupId), site),
        `(${claimed}::uuid IS NULL OR EXISTS (${ofStations}))`,
      ].join(' AND '),
      is_target: `${target}::uuid IS NULL OR EXISTS (SELECT 1 FROM fact
                    WHERE id = ${target} AND site_id = ${site} AND kind = 'step')`,
      is_people: `NOT EXISTS (SELECT 1 FROM unnest(${$(peopleOf(body))}::uuid[]) AS asked (id)
                    WHERE NOT EXISTS (SELECT 1 FROM person p WHERE p.id = asked.id AND p.site_id = ${site}))`,
      is_coffee: inSite('coffee', $('coffeeId' in body ? body.coffeeId : null), site),
      is_bag: inSite('bag', $('bagId' in body ? body.bagId : null), site),
    },
    refuse: (found) => {
      if (!found.is_station) throw problem('unknownStation');
      if (!found.is_target) throw problem('unknownFact');
      if (!found.is_people || !found.is_coffee || !found.is_bag) throw problem('unknownPart');
    },
  };
}

/** Numbers of a dial that a fact tells of. */
function settingsOf(fact: NewFact): number[] {
  if (fact.kind === 'collarMove') return [fact.body.from, fact.body.to];
  return 'setting' in fact.body ? [fact.body.setting] : [];
}

/** Everything that a fact names must belong to its café, and its numbers to the dial. */
function checksOfFact(fact: NewFact, $: Add): Checks {
  const [site, grinder] = [$(fact.siteId), $(fact.grinderId)];
  const recipe = $('recipeVersionId' in fact.body ? (fact.body.recipeVersionId ?? null) : null);
  const target = $(fact.kind === 'correction' ? fact.body.factId : null);
  const { bagId = null, coffeeId = null } = fact.kind === 'newBag' ? fact.body : {};
  const [coffee, bag] = [$(coffeeId), $(bagId)];
  const shots = $(fact.kind === 'lock' ? fact.body.shotIds : []);
  return {
    checks: {
      is_station: `EXISTS (SELECT 1 FROM grinder WHERE id = ${grinder} AND site_id = ${site})
                     AND ${inSite('group_head', $(fact.groupId), site)}`,
      is_recipe: inSite('recipe_version', recipe, site),
      is_target: `${target}::uuid IS NULL OR EXISTS (SELECT 1 FROM fact WHERE id = ${target} AND site_id = ${site}
                     AND grinder_id = ${grinder} AND kind <> 'correction')`,
      is_coffee: `${inSite('coffee', coffee, site)} AND (${bag}::uuid IS NULL OR EXISTS (
                     SELECT 1 FROM bag WHERE id = ${bag} AND site_id = ${site} AND coffee_id = ${coffee}))`,
      is_on_dial: `NOT EXISTS (SELECT 1 FROM grinder g, unnest(${$(settingsOf(fact))}::float8[]) AS told (setting)
                     WHERE g.id = ${grinder} AND (told.setting < g.dial_min - 1e-6 OR told.setting > g.dial_max + 1e-6))`,
      is_of_shots: `NOT EXISTS (SELECT 1 FROM unnest(${shots}::uuid[]) AS named (id) WHERE NOT EXISTS (
                     SELECT 1 FROM fact f
                       JOIN recipe_version own ON own.id = (f.body->>'recipeVersionId')::uuid
                       JOIN recipe_version locked ON locked.id = ${recipe}::uuid AND locked.recipe_id = own.recipe_id
                      WHERE f.id = named.id AND f.site_id = ${site} AND f.grinder_id = ${grinder} AND f.kind = 'shot'))`,
    },
    refuse: (found) => {
      if (!found.is_station) throw problem('unknownStation');
      if (!found.is_recipe) throw problem('unknownRecipe');
      if (!found.is_target) throw problem('unknownFact');
      if (!found.is_coffee) throw problem('unknownPart');
      if (!found.is_on_dial) throw new ProblemError('invalid', sentences.offTheDial);
      if (!found.is_of_shots) throw new ProblemError('invalid', sentences.notItsShots);
    },
  };
}
