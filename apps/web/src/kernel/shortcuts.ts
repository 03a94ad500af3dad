import { useEffect } from 'react';

/** A choice between two ways is no typing: the space bar still starts the shot after one was picked. */
const FIELD = 'input:not([type="radio"]), textarea, select, [contenteditable]';
const INTERACTIVE = `${FIELD}, button, a, [role="button"], [role="option"]`;

function isTyping(target: EventTarget | null): boolean {
  return target instanceof Element && target.closest(FIELD) !== null;
}

/** Whether a key pressed there already means something to the thing in focus. */
function isInteractive(target: EventTarget | null): boolean {
  return target instanceof Element && target.closest(INTERACTIVE) !== null;
}

/** Single-key shortcuts of a page, by `event.key`. Silent while somebody types or a dialog is open. */
export function useShortcuts(shortcuts: Record<string, () => void>): void {
  useEffect(() => {
    const onKey = (event: KeyboardEvent): void => {
      if (event.ctrlKey || event.metaKey || event.altKey || event.repeat || isTyping(event.target)) return;
      if (document.querySelector('[role="dialog"]') !== null) return;
      if ((event.key === ' ' || event.key === 'Enter') && isInteractive(event.target)) return;
      const action = shortcuts[event.key];
      if (!action) return;
      event.preventDefault();
      action();
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, [shortcuts]);
}
