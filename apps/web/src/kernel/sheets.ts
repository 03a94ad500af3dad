import type { Kept, SheetChange } from '@tempera/contract/sheet';
import { sheetPaths, type SheetKind } from '@tempera/contract/sheetPaths';
import type { SheetOf } from '@tempera/contract/sheets';
import type { ListedKind } from '@tempera/contract/routes/sheets';
import type { Session } from '@tempera/contract/team';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { ApiProblem, call } from './api.ts';
import type { KeptRead } from './room.ts';

/** Reads that a changed sheet makes stale. */
const SHOWN = ['sheets', 'bar', 'house', 'coffee', 'session', 'team', 'welcome'];

/** The table holds the same routes for every kind; which answer belongs to `kind` is more than the compiler follows. */
const callSheets = call as unknown as <Answer>(key: string, asked?: object) => Promise<Answer>;

const sheetsRead = (kind: ListedKind) => ({
  queryKey: ['sheets', kind],
  queryFn: () => callSheets<{ sheets: unknown[] }>(`GET ${sheetPaths[kind]}`),
});

/** Sheets of these kinds, as a room keeps them for later. */
export const keptSheets = (...kinds: readonly ListedKind[]): readonly KeptRead[] => kinds.map(sheetsRead);

/** Every sheet of a kind, those out of use too. */
export function useSheets<K extends ListedKind>(kind: K) {
  return useQuery({
    queryKey: ['sheets', kind],
    queryFn: () => callSheets<{ sheets: Kept<SheetOf<K>>[] }>(`GET ${sheetPaths[kind]}`),
    select: ({ sheets }) => sheets,
    staleTime: 60_000,
  });
}

/** Keeps a sheet, with an id from here, so that sending it twice is sending it once. */
export function useKeepSheet<K extends SheetKind>(kind: K) {
  const client = useQueryClient();
  const refresh = (): Promise<void> =>
    client.invalidateQueries({ predicate: ({ queryKey }) => SHOWN.includes(String(queryKey[0])) });
  const { mutateAsync } = useMutation({
    mutationFn: ({ id, change }: { id: string; change: SheetChange<SheetOf<K>> }) =>
      callSheets<Kept<SheetOf<K>>>(`PUT ${sheetPaths[kind]}/{id}`, { params: { id }, body: change }),
    onSuccess: refresh,
    // Somebody was faster: what they left is read, and shown beside what stands here.
    onError: (error) =>
      error instanceof ApiProblem && error.problem.code === 'changedMeanwhile' ? refresh() : undefined,
  });
  return (id: string, change: SheetChange<SheetOf<K>>) => mutateAsync({ id, change });
}

/** Whether this person keeps the house book true. */
export const keepsHouse = ({ person }: Session): boolean => person.role === 'head' || person.role === 'office';
