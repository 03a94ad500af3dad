import { tared, type MassTrace } from '@tempera/core/capture';
import { useEffect, useRef, useState, useSyncExternalStore } from 'react';
import { keepHere, readHere } from '../kernel/here.ts';
import type { BenchDevices, MachinePort, PullPort, PullStart } from './ports.ts';
import { recordedPull } from './recordedPull.ts';
import { throughMachine } from './throughMachine.ts';

/** A pull as it is kept on this device until its shot is written. */
export interface PullDraft extends PullStart {
  groupId: string;
  setting: number;
  /** False: only the clock runs, and yield and first drop are typed. */
  byScale: boolean;
  /** When somebody tapped that the first drop fell, s. */
  firstDropS?: number | null;
  /** Pulled to check the group, and not to dial in. */
  check?: boolean;
}

export interface LivePull {
  draft: PullDraft;
  elapsedS: number;
  trace: MassTrace;
  /** The pump has stopped and the last drops have fallen. */
  settled: boolean;
  /** The scale went silent on the way: what came is kept, the rest is typed. */
  lost: boolean;
  volumeCount: number | null;
  /** What stands in a simulated cup that no scale weighs, once it was stopped, g; null elsewhere. */
  cupG: number | null;
}

const POLL_MS = 50;
const NO_TRACE: MassTrace = { hz: 10, massG: [] };
const keyOf = (grinderId: string): string => `tempera.pull.${grinderId}`;

/** A clock alone, where there is no scale. */
function clockOnly(start: PullStart): PullPort {
  let stoppedAtS = start.stoppedAtS;
  const nowS = (): number => (Date.now() - start.startedAtMs) / 1_000;
  return {
    weighs: false,
    elapsedS: () => stoppedAtS ?? nowS(),
    trace: () => NO_TRACE,
    stopPump: (atS) => (stoppedAtS ??= atS ?? Math.round(nowS() * 10) / 10),
    stoppedAtS: () => stoppedAtS,
    settled: () => stoppedAtS !== null,
    lost: () => false,
    volumeCount: () => null,
    cupG: () => null,
    leave: () => undefined,
    end: () => undefined,
  };
}

/** What a pull is read by: its recording, or the devices of its bench or a clock alone, and the machine where it tells of itself. */
function portFor(draft: PullDraft, { devices, machine }: Pick<MadeWith, 'devices' | 'machine'>): PullPort {
  const { recorded, stoppedAtS } = draft;
  if (recorded && stoppedAtS !== null) return recordedPull(recorded, stoppedAtS);
  const port = devices ? devices.pull(draft) : clockOnly(draft);
  return machine ? throughMachine(port, machine, draft) : port;
}

/** A pull as it is at this moment, for whoever draws it many times a second. */
export interface LiveNow {
  get: () => LivePull | null;
  watch: (watcher: () => void) => () => void;
}

function liveNow(): LiveNow & { set: (live: LivePull | null) => void } {
  let now: LivePull | null = null;
  const watchers = new Set<() => void>();
  return {
    get: () => now,
    set: (live) => {
      const same = now !== null && live !== null && looksTheSame(now, live);
      now = live;
      if (same) return;
      for (const watcher of watchers) watcher();
    },
    watch: (watcher) => {
      watchers.add(watcher);
      return () => watchers.delete(watcher);
    },
  };
}

/** Clocks are read to a tenth: between two tenths without a sample there is nothing to draw. */
const looksTheSame = (a: LivePull, b: LivePull): boolean =>
  a.elapsedS.toFixed(1) === b.elapsedS.toFixed(1) &&
  a.trace === b.trace &&
  a.draft === b.draft &&
  a.settled === b.settled &&
  a.lost === b.lost &&
  a.volumeCount === b.volumeCount &&
  a.cupG === b.cupG;

/** The trace as it was seen last where nothing came since: who draws it has nothing new to draw. */
function grown(before: LivePull | null, draftId: string, { hz, massG }: MassTrace): MassTrace {
  const seen = before?.draft.id === draftId ? before.trace : null;
  const same = seen !== null && seen.massG.length === massG.length && seen.massG.at(-1) === massG.at(-1);
  return same ? seen : { hz, massG: [...massG] };
}

/** Follows a pull sample by sample. */
export const useLiveNow = (now: LiveNow): LivePull | null => useSyncExternalStore(now.watch, now.get);

/** While the last drops fall, what the shot will have been is worked out so often. */
const DRIP_NEWS_S = 0.5;

/** A pull that runs on and on is asked about: it makes itself heard every few seconds. */
const longNews = ({ elapsedS }: LivePull): number => Math.floor(elapsedS / LONG_NEWS_S);
const LONG_NEWS_S = 5;

/** Whether a bench has something new to say, beside the trace that grew. */
function isNews(before: LivePull | null, now: LivePull): boolean {
  return (
    before?.draft.id !== now.draft.id ||
    before.draft.stoppedAtS !== now.draft.stoppedAtS ||
    before.settled !== now.settled ||
    before.lost !== now.lost ||
    before.draft !== now.draft ||
    (now.draft.stoppedAtS === null && longNews(before) !== longNews(now)) ||
    before.cupG !== now.cupG ||
    (now.draft.stoppedAtS !== null &&
      !now.settled &&
      now.trace.massG.length - before.trace.massG.length >= DRIP_NEWS_S * now.trace.hz)
  );
}

interface MadeWith {
  devices: BenchDevices | null;
  machine: MachinePort | null;
  count: number | null;
}

/** A pull may be begun before the page has read what it is connected to, or where the machine stops: it is taken up with that. */
const isLate = (made: MadeWith, known: MadeWith): boolean =>
  (made.devices === null && known.devices !== null) ||
  (made.machine === null && known.machine !== null) ||
  (made.count === null && known.count !== null);

/**
 * The pull under way at a grinder, taken up again after a reload. `live` changes when something happens to the pull;
 * `now` follows it sample by sample.
 * @param stopsAtCount where the machine stops by itself, as far as that is known by now
 * @param machine tells of its shots by itself; null: it does not
 */
export function usePull(
  grinderId: string,
  devices: BenchDevices | null,
  stopsAtCount: number | null,
  machine: MachinePort | null = null,
) {
  const [draft, setDraft] = useState(() => readHere(keyOf(grinderId)) as PullDraft | null);
  const [live, setLive] = useState<LivePull | null>(null);
  const [now] = useState(liveNow);
  const port = useRef<PullPort | null>(null);
  const madeWith = useRef<MadeWith>({ devices: null, machine: null, count: null });
  const draftId = draft?.id ?? null;

  useEffect(() => {
    if (!draft) return undefined;
    // Without a scale the machine still runs: its clock counts, and what falls into the cup is only looked at.
    const count = draft.stopsAtCount ?? stopsAtCount;
    const late = draft.stoppedAtS === null && isLate(madeWith.current, { devices, machine, count });
    if (port.current === null || late) {
      port.current?.leave();
      port.current = portFor({ ...draft, stopsAtCount: count }, { devices, machine });
      madeWith.current = { devices, machine, count };
    }
    const current = port.current;
    const poll = (): void => {
      const { massG, hz } = tared(current.trace());
      // A scale that is gone in mid-shot takes nothing back of what it said.
      const weighed = draft.byScale && current.weighs;
      const stoppedAtS = current.stoppedAtS();
      // The machine may have stopped by itself: that is as good as a hand.
      if (stoppedAtS !== null && draft.stoppedAtS === null) {
        const stopped = { ...draft, stoppedAtS };
        keepHere(keyOf(grinderId), stopped);
        setDraft(stopped);
      }
      const seen: LivePull = {
        draft: stoppedAtS === draft.stoppedAtS ? draft : { ...draft, stoppedAtS },
        elapsedS: current.elapsedS(),
        trace: weighed ? grown(now.get(), draft.id, { hz, massG }) : NO_TRACE,
        settled: current.settled(),
        lost: current.lost(),
        // A machine tells its count to whoever pulls by hand too; a simulated one is only looked at.
        volumeCount: weighed || machine !== null ? current.volumeCount() : null,
        cupG: !draft.byScale && stoppedAtS !== null ? current.cupG() : null,
      };
      now.set(seen);
      setLive((before) => (isNews(before, seen) ? seen : before));
    };
    poll();
    const timer = setInterval(poll, POLL_MS);
    return () => clearInterval(timer);
  }, [draft, draftId, devices, machine, stopsAtCount, grinderId, now]);

  useEffect(
    () => () => {
      port.current?.leave();
      port.current = null;
    },
    [],
  );

  const change = (next: PullDraft | null): void => {
    keepHere(keyOf(grinderId), next);
    setDraft(next);
  };
  return {
    live: draft && live?.draft.id === draft.id ? live : null,
    now,
    pulling: draft !== null,
    start: (next: PullDraft): void => {
      port.current = null;
      change(next);
    },
    stop: (): void => {
      if (draft && port.current && draft.stoppedAtS === null) change({ ...draft, stoppedAtS: port.current.stopPump() });
    },
    /** Somebody saw the first drop fall. */
    markDrop: (): void => {
      if (draft && port.current && draft.stoppedAtS === null) {
        change({ ...draft, firstDropS: Math.round(port.current.elapsedS() * 10) / 10 });
      }
    },
    /** It runs through another group than it was started for. */
    moveTo: (groupId: string): void => {
      if (draft) change({ ...draft, groupId });
    },
    /** It is over, and the rest is typed: the scale's word is not waited for any more. */
    typeRest: (timeS: number): void => {
      if (!draft) return;
      change({ ...draft, stoppedAtS: draft.stoppedAtS ?? timeS, byScale: false });
    },
    /** The shot is written, or thrown away. */
    end: (): void => {
      port.current?.end();
      port.current = null;
      now.set(null);
      setLive(null);
      change(null);
    },
  };
}
