import type { NewEntry } from '@tempera/contract/journal';
import { sentences } from '@tempera/contract/sentences';
import { stationsOf, type StepBody } from '@tempera/core/facts';
import { problem, ProblemError } from '../kernel/problems.ts';

/** Whether what an entry names is of its café: as SQL, so that checking and keeping are one statement, for many entries too. */

/** What an entry names, a column each of the rows that are told; the checks below are about these. */
interface Named {
  machine: string | null;
  grinder: string | null;
  group_head: string | null;
  /** A station of any kind. */
  station: string | null;
  recipe: string | null;
  /** The entry that it is about. */
  target: string | null;
  coffee: string | null;
  bag: string | null;
  /** The coffee that must be in the bag. */
  in_bag: string | null;
  /** People beside its author. */
  people: string[];
  /** Numbers of the grinder's dial. */
  settings: number[];
  shots: string[];
}

/** The columns of `Named` as SQL declares them. */
export const namedColumns = `machine uuid, grinder uuid, group_head uuid, station uuid, recipe uuid, target uuid, coffee uuid, bag uuid,
  in_bag uuid, people uuid[], settings float8[], shots uuid[]`;

const nothing: Named = {
  machine: null,
  grinder: null,
  group_head: null,
  station: null,
  recipe: null,
  target: null,
  coffee: null,
  bag: null,
  in_bag: null,
  people: [],
  settings: [],
  shots: [],
};

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

function namedByStep(body: StepBody): Named {
  const { machineId = null, grinderId = null, groupId = null } = stationsOf(body);
  return {
    ...nothing,
    machine: machineId,
    grinder: grinderId,
    group_head: groupId,
    station: body.step === 'begun' || body.step === 'skipped' ? body.stationId : null,
    target: targetOf(body),
    people: peopleOf(body),
    coffee: 'coffeeId' in body ? body.coffeeId : null,
    bag: 'bagId' in body ? body.bagId : null,
  };
}

/** What an entry names. */
export function namedBy(entry: NewEntry): Named {
  if (entry.kind === 'step') return namedByStep(entry.body);
  const own = { ...nothing, grinder: entry.grinderId, group_head: entry.groupId };
  const { body } = entry;
  if ('recipeVersionId' in body) own.recipe = body.recipeVersionId ?? null;
  if ('setting' in body) own.settings = [body.setting];
  if (entry.kind === 'collarMove') return { ...own, settings: [entry.body.from, entry.body.to] };
  if (entry.kind === 'correction') return { ...own, target: entry.body.factId };
  if (entry.kind === 'lock') return { ...own, shots: entry.body.shotIds };
  if (entry.kind !== 'newBag') return own;
  const { coffeeId = null, bagId = null } = entry.body;
  return { ...own, coffee: coffeeId, bag: bagId, in_bag: coffeeId };
}

// Every look-up is of one row by its key, and of nothing else: the planner can never think that going through a table, or through an
// index of a whole café, serves all of them better.
const siteOf = (table: string, id: string): string => `(SELECT o.site_id FROM ${table} o WHERE o.id = ${id})`;
const ofSite = (table: string): string =>
  `(t.${table} IS NULL OR ${siteOf(table, `t.${table}`)} IS NOT DISTINCT FROM t."siteId")`;
const recipeOf = (version: string): string => `(SELECT v.recipe_id FROM recipe_version v WHERE v.id = ${version})`;
/** True of every one of a list, or of none. */
const ofAll = (list: string, isTrue: string): string =>
  `(SELECT bool_and(coalesce(${isTrue}, false)) FROM unnest(${list}) AS one) IS NOT FALSE`;

/** SQL that is true of a told row `t` where all is well, by a name of each check. */
export const checks = {
  is_station: `${ofSite('machine')} AND ${ofSite('grinder')} AND ${ofSite('group_head')} AND (t.station IS NULL OR t."siteId" IN (
                 ${['machine', 'grinder', 'group_head'].map((table) => siteOf(table, 't.station')).join(', ')}))`,
  is_recipe: `t.recipe IS NULL OR ${siteOf('recipe_version', 't.recipe')} IS NOT DISTINCT FROM t."siteId"`,
  is_target: `t.target IS NULL OR (SELECT o.site_id = t."siteId" AND CASE t.kind WHEN 'step' THEN o.kind = 'step'
                 ELSE o.grinder_id = t.grinder AND o.kind <> 'correction' END FROM fact o WHERE o.id = t.target)`,
  is_people: ofAll('t.people', `${siteOf('person', 'one')} = t."siteId"`),
  is_coffee: `${ofSite('coffee')} AND ${ofSite('bag')} AND (t.in_bag IS NULL OR t.bag IS NULL
                 OR (SELECT o.coffee_id FROM bag o WHERE o.id = t.bag) = t.in_bag)`,
  is_on_dial: ofAll(
    't.settings',
    '(SELECT one BETWEEN o.dial_min - 1e-6 AND o.dial_max + 1e-6 FROM grinder o WHERE o.id = t.grinder)',
  ),
  is_of_shots: ofAll(
    't.shots',
    `(SELECT o.site_id = t."siteId" AND o.grinder_id = t.grinder AND CASE o.kind WHEN 'shot'
        THEN ${recipeOf(`(o.body->>'recipeVersionId')::uuid`)} = ${recipeOf('t.recipe')} END FROM fact o WHERE o.id = one)`,
  ),
};

/** What each check came to for one row; null is no better than false. */
export type Found = Record<keyof typeof checks, boolean | null>;

/** @returns why an entry with such findings is not kept; null: all is well */
export function refusalFor(found: Found): ProblemError | null {
  if (!found.is_station) return problem('unknownStation');
  if (!found.is_recipe) return problem('unknownRecipe');
  if (!found.is_target) return problem('unknownFact');
  if (!found.is_people || !found.is_coffee) return problem('unknownPart');
  if (!found.is_on_dial) return new ProblemError('invalid', sentences.offTheDial);
  return found.is_of_shots ? null : new ProblemError('invalid', sentences.notItsShots);
}
