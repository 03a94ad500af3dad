import type { Bar, PlanChange } from '@tempera/contract/bar';
import type { RecordedEntry, RecordedFact, RecordedStep } from '@tempera/contract/journal';
import { queryOptions, useMutation, useQuery, useQueryClient, type QueryClient } from '@tanstack/react-query';
import { withTodaysAim } from '@tempera/contract/station';
import { aimChangesOf, type AimChange } from '@tempera/core/taste';
import { use, useSyncExternalStore } from 'react';
import { addToRead } from '../kernel/addToRead.ts';
import { call } from '../kernel/api.ts';
import { OutboxContext } from '../kernel/facts.tsx';
import type { KeptRead } from '../kernel/room.ts';
import { keptSheets } from '../kernel/sheets.ts';
import type { Entry } from '../kernel/outbox.ts';
import { standingOf } from '../kernel/standing.ts';

const barKey = ['bar'] as const;

const barQuery = queryOptions({ queryKey: barKey, queryFn: () => call('GET /bar'), staleTime: 60_000 });

/** Begins to read the bar while its first page is still being fetched. */
export const readBarAhead = (client: QueryClient): void => void client.query(barQuery).catch(() => undefined);

const nothingUnsent: readonly Entry[] = [];
const noNews = () => () => undefined;

/** The bar as it stands: every grinder with today's aim, by what taste decided here or elsewhere, sent or not. */
export function useBar() {
  const query = useQuery(barQuery);
  const outbox = use(OutboxContext);
  const unsent = useSyncExternalStore(outbox?.subscribe ?? noNews, outbox ? outbox.entries : () => nothingUnsent);
  return { ...query, data: query.data && aimedBar(query.data, unsent) };
}

const aimedBars = new WeakMap<Bar, { unsent: readonly Entry[]; bar: Bar }>();
const aimedGrinders = new WeakMap<Bar['grinders'], { key: string; grinders: Bar['grinders'] }>();

/**
 * The bar with today's aims: the very same for all who ask, until something was read or written. A page asks a dozen times, and what
 * stands of a bar is made once for each that it meets.
 */
function aimedBar(read: Bar, unsent: readonly Entry[]): Bar {
  const known = aimedBars.get(read);
  if (known?.unsent === unsent) return known.bar;
  const changes = aimChanges(read, unsent);
  const key = JSON.stringify(changes);
  // The grinders stay the very same until taste changes something: what was folded onto them is then not folded anew.
  const before = aimedGrinders.get(read.grinders);
  const grinders =
    before?.key === key ? before.grinders : read.grinders.map((own) => withTodaysAim(own, changes?.[own.id] ?? []));
  const bar = known?.bar.grinders === grinders ? known.bar : { ...read, grinders };
  aimedGrinders.set(read.grinders, { key, grinders });
  aimedBars.set(read, { unsent, bar });
  return bar;
}

/** What taste changed today or was kept for it, by grinder; null where it changed nothing. */
function aimChanges(bar: Bar, unsent: readonly Entry[]): Record<string, AimChange[]> | null {
  const settled = [...bar.steps, ...unsent.map(({ fact }) => fact)].some(
    (fact) =>
      fact.kind === 'step' &&
      ((fact.body.step === 'tasteSettled' && fact.body.change !== null) || fact.body.step === 'aimKept'),
  );
  if (!settled) return null;
  const standing = standingOf([...bar.facts, ...bar.steps], unsent);
  const fromMs = Date.parse(bar.memory.upTo);
  return Object.fromEntries(bar.grinders.map(({ id }) => [id, aimChangesOf(standing, id, fromMs)]));
}

/** What a grinder of the bar is called; null when it is out of use. */
export const nameIn = (bar: Bar | undefined, grinderId: string | null): string | null =>
  [...(bar?.grinders ?? []), ...(bar?.waiting ?? [])].find(({ id }) => id === grinderId)?.name ?? null;

const learnedQuery = queryOptions({
  queryKey: [...barKey, 'learned'],
  queryFn: () => call('GET /bar/learned'),
  staleTime: 300_000,
});

export const upkeepQuery = queryOptions({
  queryKey: [...barKey, 'upkeep'],
  queryFn: () => call('GET /bar/upkeep'),
  staleTime: 300_000,
});

/** What the pages of the bar show, beside the bar itself. */
export const barKeeps = (): readonly KeptRead[] => [
  { queryKey: learnedQuery.queryKey, queryFn: () => call('GET /bar/learned') },
  { queryKey: upkeepQuery.queryKey, queryFn: () => call('GET /bar/upkeep') },
  ...keptSheets('machine', 'group', 'grinder', 'basket', 'fixture', 'counter'),
];

/** Grinders of the bar as far as it was read. */
export const grindersRead = (client: QueryClient): readonly string[] =>
  client.getQueryData<Bar>(barKey)?.grinders.map(({ id }) => id) ?? [];

/** Recipes of the coffees in the hoppers that this device has read of, by their ids. */
export const recipesHeld = (client: QueryClient): readonly string[] => {
  const grinders = client.getQueryData<Bar>(barKey)?.grinders ?? [];
  return [
    ...new Set(
      grinders.flatMap(({ recipe, others }) => [recipe.recipeId, ...others.map((other) => other.recipe.recipeId)]),
    ),
  ];
};

/** What the last weeks taught; read anew with the bar. */
export function useLearned() {
  return useQuery(learnedQuery);
}

/** Puts every piece where it was moved to. */
export function useChangePlan() {
  const client = useQueryClient();
  return useMutation({
    mutationFn: (change: PlanChange) => call('PUT /bar/plan', { body: change }),
    onSuccess: (bar) => client.setQueryData(barKey, bar),
    onError: () => client.invalidateQueries({ queryKey: barKey }),
  });
}

/** What the server has kept joins the bar without a new read, whoever wrote it and wherever. */
export function takeIntoBar(client: QueryClient, fact: RecordedEntry): void {
  if (fact.kind === 'step') addStepToBar(client, fact);
  else addFactToBar(client, fact);
}

function addStepToBar(client: QueryClient, step: RecordedStep): void {
  addToRead<Bar>(client, barKey, (bar) =>
    bar.steps.some((known) => known.id === step.id) ? bar : { ...bar, steps: [...bar.steps, step] },
  );
}

/** Another coffee wants a new read. */
function addFactToBar(client: QueryClient, fact: RecordedFact): void {
  addToRead<Bar>(client, barKey, (bar) =>
    bar.facts.some((known) => known.id === fact.id) ? bar : { ...bar, facts: [...bar.facts, fact] },
  );
  // Of a fact of an earlier day, too, the memory that the bar was handed out with was made without it.
  const bar = client.getQueryData<Bar>(barKey);
  const isOld = bar !== undefined && fact.at < bar.memory.upTo;
  if (fact.kind === 'newBag' || fact.kind === 'correction' || isOld) {
    void client.invalidateQueries({ predicate: ({ queryKey }) => queryKey[0] === 'bar' || queryKey[0] === 'coffee' });
  }
}
