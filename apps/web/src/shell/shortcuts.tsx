import { Kbd, Modal } from '@mantine/core';
import { useEffect } from 'react';

/** Keys as the help sheet lists them. */
const help: readonly { keys: string; does: string; where: string }[] = [
  { keys: 'b', does: 'to the bar', where: 'everywhere' },
  { keys: 'o', does: 'to the opening', where: 'everywhere' },
  { keys: 'c', does: 'to the coffees', where: 'everywhere' },
  { keys: 'h', does: 'to the house book', where: 'everywhere' },
  { keys: 'j', does: 'to the journal', where: 'everywhere' },
  { keys: '/', does: 'find anything (Ctrl+K too)', where: 'everywhere' },
  { keys: '?', does: 'this sheet', where: 'everywhere' },
  { keys: 'n', does: 'to the next thing to do', where: 'bar' },
  { keys: 'p', does: 'to the plan', where: 'bar' },
  { keys: 'u', does: 'undo a move; r does it again', where: 'plan' },
  { keys: 'g', does: 'grind a dose', where: 'bench' },
  { keys: 'k', does: 'keep the weighed dose', where: 'bench' },
  { keys: 'Space', does: 'start and stop the shot', where: 'bench' },
  { keys: 'd', does: 'do what is advised', where: 'bench' },
  { keys: 'w', does: 'why this advice', where: 'bench' },
];

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

export function HelpSheet({ opened, onClose }: { opened: boolean; onClose: () => void }) {
  return (
    <Modal opened={opened} onClose={onClose} title="Keys" centered>
      <table style={{ width: '100%', borderSpacing: '0 6px' }}>
        <thead className="visually-hidden">
          <tr>
            <th>Key</th>
            <th>Does</th>
            <th>Where</th>
          </tr>
        </thead>
        <tbody>
          {help.map(({ keys, does, where }) => (
            <tr key={keys}>
              <td>
                <Kbd size="md">{keys}</Kbd>
              </td>
              <td>{does}</td>
              <td className="faint">{where}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </Modal>
  );
}
