import { Kbd, Modal } from '@mantine/core';
import { rooms } from './rooms.ts';

/** Keys as the help sheet lists them: those that lead somewhere first, then each room's own. */
const help = [
  ...rooms.flatMap(({ nav }) => (nav ? [{ keys: nav.key, does: nav.does, where: 'everywhere' }] : [])),
  { keys: '/', does: 'find anything (Ctrl+K too)', where: 'everywhere' },
  { keys: '?', does: 'this sheet', where: 'everywhere' },
  ...rooms.flatMap(({ keys = [] }) => keys),
];

/** Every single-key shortcut. */
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
            <tr key={`${keys} ${where}`}>
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
