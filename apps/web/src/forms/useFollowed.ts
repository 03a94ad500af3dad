import { useState } from 'react';

/**
 * What a form began from: it follows what is kept for as long as nothing was changed in it, and stays put from then on,
 * so that nobody's typing is swept away.
 * @returns what it began from, a word to tell whether something was changed, and a way to begin again from what is kept
 */
export function useFollowed<T>(kept: T, versionOf: (value: T) => number) {
  const [began, setBegan] = useState(kept);
  const [changed, setChanged] = useState(false);
  // Adjusted while drawing, as the state of a form that somebody else's change has made stale.
  if (!changed && versionOf(began) !== versionOf(kept)) setBegan(kept);
  return {
    began,
    setChanged,
    beginAgain: () => {
      setChanged(false);
      setBegan(kept);
    },
  };
}
