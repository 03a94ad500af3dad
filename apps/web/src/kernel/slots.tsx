import type { Bar, Grinder, GrinderSheet, GroupSheet } from '@tempera/contract/bar';
import type { Kept } from '@tempera/contract/sheet';
import type { Session } from '@tempera/contract/team';
import { createContext, createElement, use, type ComponentType } from 'react';

/** Places on a room's pages where other rooms hang something in, by what each is told. */
export interface Slots {
  /** The next thing on the home page while a run is in hand. */
  homeNext: { session: Session };
  /** On the home page once no run is in hand; it names the next thing where every grinder serves. */
  homeDay: { session: Session; leads: boolean };
  /** At the top of the home page: what has to be answered before anything is gone by. */
  homeAsks: { session: Session };
  /** Nothing to see: what a tablet does beside whatever page is open. */
  beside: { session: Session };
  /** On the home page of a bar that has nothing to dial in yet. */
  homeFirst: { bar: Bar; session: Session };
  /** Beside what a grinder holds, on its sheet. */
  grinderHolds: { grinderId: string };
  /** Under a grinder's sheet. */
  grinderChecks: { sheet: Kept<GrinderSheet>; grinder: Grinder; mayChange: boolean };
  /** On a recipe's page: what taste has made of it. */
  recipeAim: { recipeId: string; session: Session };
  /** With a coffee, on the coffee page: what is noted about it. */
  coffeeNotes: { coffeeId: string };
  /** Under a group's sheet. */
  groupChecks: { group: Kept<GroupSheet>; mayChange: boolean };
}

/** Parts that a room hangs into other rooms' pages. */
export type SlotParts = { [S in keyof Slots]?: ComponentType<Slots[S]> };

/** What all rooms hang in. */
export const SlotsContext = createContext<readonly SlotParts[]>([]);

interface SlotProps<S extends keyof Slots> {
  of: S;
  told: Slots[S];
}

/** Draws what other rooms hang in here: with the page, or as soon as it is fetched, as the room says. */
export function Slot<S extends keyof Slots>({ of, told }: SlotProps<S>) {
  const parts = use(SlotsContext).flatMap((room) => room[of] ?? []) as ComponentType<Slots[S]>[];
  return parts.map((Part, i) => createElement(Part, { ...told, key: i } as never));
}
