import type { Bar, Grinder, GrinderSheet, GroupSheet } from '@tempera/contract/bar';
import type { Kept } from '@tempera/contract/sheet';
import type { Session } from '@tempera/contract/team';
import { createContext, createElement, use, useEffect, type ComponentType } from 'react';
import { keepHere, readHere } from './here.ts';
import type { Piece } from './later.tsx';

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
export type SlotParts = { [S in keyof Slots]?: Piece<Slots[S]> };

/** What all rooms hang in. */
export const SlotsContext = createContext<readonly SlotParts[]>([]);

interface SlotProps<S extends keyof Slots> {
  of: S;
  told: Slots[S];
}

const keyOf = (path: string): string => `slots on ${path}`;

/** Fetches what rooms hang into these slots; what cannot be had is asked for again where it is drawn. */
export async function fetchSlots(rooms: readonly SlotParts[], slots: readonly string[]): Promise<void> {
  const fetches = rooms.flatMap((room) => slots.flatMap((slot) => room[slot as keyof Slots]?.fetch?.() ?? []));
  await Promise.allSettled(fetches);
}

/** Fetches what stood on a page when this device last showed it: a page that finds its parts there is drawn once, and not anew for each. */
export function fetchSlotsAt(path: string, rooms: readonly SlotParts[]): Promise<void> {
  const last = readHere(keyOf(path));
  return fetchSlots(rooms, Array.isArray(last) ? last.map(String) : []);
}

/** Fetches together what a page hangs in, and has it fetched with the page next time. */
export function useSlotsAhead(path: string, ...slots: (keyof Slots)[]): void {
  const rooms = use(SlotsContext);
  const key = slots.join(' ');
  void fetchSlots(rooms, slots);
  useEffect(() => keepHere(keyOf(path), key.split(' ')), [path, key]);
}

/** Draws what other rooms hang in here: with the page, or as soon as it is fetched, as the room says. */
export function Slot<S extends keyof Slots>({ of, told }: SlotProps<S>) {
  const parts = use(SlotsContext).flatMap((room) => room[of] ?? []) as ComponentType<Slots[S]>[];
  return parts.map((Part, i) => createElement(Part, { ...told, key: i } as never));
}
