import type { Grinder, GrinderSheet, GroupSheet } from '@tempera/contract/bar';
import type { Kept } from '@tempera/contract/sheet';
import { createContext, createElement, Suspense, use, type ComponentType } from 'react';

/** Places on a room's pages where other rooms hang something in, by what each is told. */
export interface Slots {
  /** Beside what a grinder holds, on its sheet. */
  grinderHolds: { grinderId: string };
  /** Under a grinder's sheet. */
  grinderChecks: { sheet: Kept<GrinderSheet>; grinder: Grinder; mayChange: boolean };
  /** Under a group's sheet. */
  groupChecks: { group: Kept<GroupSheet>; mayChange: boolean };
}

/** Parts that a room hangs into other rooms' pages. */
export type SlotParts = { [S in keyof Slots]?: ComponentType<Slots[S]> };

/** What all rooms hang in. */
export const SlotsContext = createContext<readonly SlotParts[]>([]);

/** Draws what other rooms hang in here, each as soon as it is fetched. */
export function Slot<S extends keyof Slots>({ of, told }: { of: S; told: Slots[S] }) {
  const parts = use(SlotsContext).flatMap((room) => room[of] ?? []) as ComponentType<Slots[S]>[];
  return (
    <Suspense fallback={null}>{parts.map((Part, i) => createElement(Part, { ...told, key: i } as never))}</Suspense>
  );
}
