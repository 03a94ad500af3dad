import { useLocalStorage } from '@mantine/hooks';
import { useEffect, useRef } from 'react';

/** What reaches somebody who is not looking: a tone, a shake, a word from the system; and a screen that stays on. */

const SOUNDS = 'tempera.sounds';

/** Whether this device makes sounds and shakes; never the only sign of anything. */
export function useSounds(): [boolean, (on: boolean) => void] {
  const [on, setOn] = useLocalStorage({ key: SOUNDS, defaultValue: true });
  return [on, setOn];
}

/** Tones of a cue: Hz and seconds each, one after another, and how the hand feels it, ms. */
interface Cue {
  tones: readonly (readonly [hz: number, s: number])[];
  shakeMs: readonly number[];
}

const cues = {
  stop: {
    tones: [
      [880, 0.12],
      [1_175, 0.18],
    ],
    shakeMs: [120, 60, 120],
  },
  due: { tones: [[523, 0.2]], shakeMs: [200] },
} satisfies Record<string, Cue>;

const VOLUME = 0.25;
let context: AudioContext | null = null;

/** Makes itself heard and felt, as far as this device can and nobody switched it off. */
export function cue(kind: keyof typeof cues): void {
  if (localStorage.getItem(SOUNDS) === 'false') return;
  const { tones, shakeMs }: Cue = cues[kind];
  if ('vibrate' in navigator) navigator.vibrate([...shakeMs]);
  if (typeof AudioContext === 'undefined') return;
  context ??= new AudioContext();
  let at = context.currentTime;
  for (const [hz, s] of tones) {
    const tone = context.createOscillator();
    const loud = context.createGain();
    tone.frequency.value = hz;
    loud.gain.setValueAtTime(VOLUME, at);
    // Ends softly: a tone that is cut off clicks.
    loud.gain.exponentialRampToValueAtTime(0.001, at + s);
    tone.connect(loud).connect(context.destination);
    tone.start(at);
    tone.stop(at + s);
    at += s;
  }
}

/** Makes itself heard once each time something becomes so. */
export function useCue(kind: keyof typeof cues, isSo: boolean): void {
  const was = useRef(isSo);
  useEffect(() => {
    if (isSo && !was.current) cue(kind);
    was.current = isSo;
  }, [kind, isSo]);
}

/** Keeps the screen on while something goes on, as long as the page is in front. */
export function useAwake(on: boolean): void {
  useEffect(() => {
    if (!on || !('wakeLock' in navigator)) return undefined;
    let held: WakeLockSentinel | null = null;
    // Asked through a function: the wait in between may have ended it.
    let over = false;
    const isOver = (): boolean => over;
    const hold = async (): Promise<void> => {
      if (document.hidden || isOver()) return;
      // A device that is low on power says no: then it is as it was before.
      const lock = await navigator.wakeLock.request('screen').catch(() => null);
      if (isOver()) void lock?.release();
      else held = lock;
    };
    const again = (): void => void hold();
    void hold();
    document.addEventListener('visibilitychange', again);
    return () => {
      over = true;
      document.removeEventListener('visibilitychange', again);
      void held?.release();
    };
  }, [on]);
}

/** Tells whoever has the page in the background, where they allowed it. */
export function notify(title: string, says: string): void {
  if (!document.hidden || typeof Notification === 'undefined' || Notification.permission !== 'granted') return;
  // On some phones only a worker may tell: then nothing is told.
  try {
    const told = new Notification(title, { body: says, icon: '/mark-192.png', tag: 'tempera-due' });
    told.onclick = () => {
      window.focus();
      told.close();
    };
  } catch {
    void navigator.serviceWorker.ready.then((worker) =>
      worker.showNotification(title, { body: says, icon: '/mark-192.png', tag: 'tempera-due' }),
    );
  }
}

/** Whether this device may still be asked to tell of what is due. */
export const mayAskToNotify = (): boolean =>
  typeof Notification !== 'undefined' && Notification.permission === 'default';
