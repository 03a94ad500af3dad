import type { RecordedEntry } from '@tempera/contract/journal';
import type { Changeable } from '@tempera/contract/live';
import type { BridgeReadings } from '@tempera/contract/readings';
import type { Search } from '@tempera/contract/search';
import type { Session } from '@tempera/contract/team';
import type { QueryClient } from '@tanstack/react-query';
import type { ComponentType } from 'react';
import type { SlotParts } from './slots.tsx';

/** A page at an address. Its code is fetched when it is first asked for. */
interface Page {
  path: string;
  load: () => Promise<ComponentType<{ session: Session }>>;
  /** Fetched as soon as somebody has signed in, so that a tap waits for nothing, not even for a network gone by then. */
  soon?: true;
}

/** A line of the palette: what is found, and where it leads. */
export interface PaletteLine {
  id: string;
  label: string;
  to: string;
  says?: string;
  /** Whom it is offered to; everybody unless it says otherwise. */
  may?: (session: Session) => boolean;
}

type HitKind = Search['hits'][number]['kind'];

/** What news from the server mean to a room. */
export interface News {
  /** First words of its query keys: read again when news may have been missed. */
  reads: readonly string[];
  /** What of the house its reads show: they are read again when it is changed. Absent: anything. */
  shows?: readonly Changeable[];
  /** Takes what the devices at a bridge tell. */
  onReadings?: (told: BridgeReadings) => void;
  /** Takes a fact into what the room has read already. */
  onFact?: (client: QueryClient, fact: RecordedEntry) => void;
}

/** Something that is read before anybody asks, so that its page stands without the server. */
export interface KeptRead {
  queryKey: readonly unknown[];
  queryFn: () => Promise<unknown>;
}

/** A room as it announces itself to the app. */
export interface Room extends News {
  /** Begins to read what nearly every page needs, when somebody was signed in on this device. */
  readAhead?: (client: QueryClient) => void;
  pages: readonly Page[];
  /** What its pages show: read once the first view is idle, and kept on this device. */
  keeps?: (client: QueryClient) => readonly KeptRead[];
  /** Its place in the navigation, in the order of the rooms, with the key that leads there. */
  nav?: { label: string; to: string; key: string; does: string };
  /** Keys of its pages, as the help sheet lists them. */
  keys?: readonly { keys: string; does: string; where: string }[];
  /** What can be done in it, by the palette. */
  does?: readonly PaletteLine[];
  /** Where things that a search finds are looked at. */
  hits?: Partial<Record<HitKind, { word: string; path: (id: string) => string }>>;
  /** Parts that it hangs into other rooms' pages. */
  slots?: SlotParts;
}
