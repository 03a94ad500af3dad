import { tared, type MassTrace } from '@tempera/core/capture';
import { useEffect, useRef, useState } from 'react';
import type { BenchDevices, PullPort, PullStart } from './ports.ts';

/** A pull as it is kept on this device until its shot is written. */
export interface PullDraft extends PullStart {
  groupId: string;
  setting: number;
  /** False: only the clock runs, and yield and first drop are typed. */
  byScale: boolean;
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
}

const POLL_MS = 50;
const NO_TRACE: MassTrace = { hz: 10, massG: [] };
const keyOf = (grinderId: string): string => `tempera.pull.${grinderId}`;

function readDraft(grinderId: string): PullDraft | null {
  try {
    return JSON.parse(localStorage.getItem(keyOf(grinderId)) ?? 'null') as PullDraft | null;
  } catch {
    return null;
  }
}

function keepDraft(grinderId: string, draft: PullDraft | null): void {
  if (draft) localStorage.setItem(keyOf(grinderId), JSON.stringify(draft));
  else localStorage.removeItem(keyOf(grinderId));
}

/** A clock alone, where there is no scale. */
function clockOnly(start: PullStart): PullPort {
  let stoppedAtS = start.stoppedAtS;
  const nowS = (): number => (Date.now() - start.startedAtMs) / 1_000;
  return {
    elapsedS: () => stoppedAtS ?? nowS(),
    trace: () => NO_TRACE,
    stopPump: () => (stoppedAtS ??= Math.round(nowS() * 10) / 10),
    stoppedAtS: () => stoppedAtS,
    settled: () => stoppedAtS !== null,
    lost: () => false,
    volumeCount: () => null,
  };
}

/** The pull under way at a grinder, taken up again after a reload. */
export function usePull(grinderId: string, devices: BenchDevices | null) {
  const [draft, setDraft] = useState(() => readDraft(grinderId));
  const [live, setLive] = useState<LivePull | null>(null);
  const port = useRef<PullPort | null>(null);
  const draftId = draft?.id ?? null;

  useEffect(() => {
    if (!draft) return undefined;
    port.current ??= draft.byScale && devices ? devices.pull(draft) : clockOnly(draft);
    const current = port.current;
    const poll = (): void => {
      const { massG, hz } = tared(current.trace());
      const stoppedAtS = current.stoppedAtS();
      // The machine may have stopped by itself: that is as good as a hand.
      if (stoppedAtS !== null && draft.stoppedAtS === null) {
        const stopped = { ...draft, stoppedAtS };
        keepDraft(grinderId, stopped);
        setDraft(stopped);
      }
      setLive({
        draft: { ...draft, stoppedAtS },
        elapsedS: current.elapsedS(),
        trace: { hz, massG: [...massG] },
        settled: current.settled(),
        lost: current.lost(),
        volumeCount: current.volumeCount(),
      });
    };
    poll();
    const timer = setInterval(poll, POLL_MS);
    return () => clearInterval(timer);
  }, [draft, draftId, devices, grinderId]);

  const change = (next: PullDraft | null): void => {
    keepDraft(grinderId, next);
    setDraft(next);
  };
  return {
    live: draft && live?.draft.id === draft.id ? live : null,
    pulling: draft !== null,
    start: (next: PullDraft): void => {
      port.current = null;
      change(next);
    },
    stop: (): void => {
      if (draft && port.current && draft.stoppedAtS === null) change({ ...draft, stoppedAtS: port.current.stopPump() });
    },
    /** The shot is written, or thrown away. */
    end: (): void => {
      port.current = null;
      setLive(null);
      change(null);
    },
  };
}
