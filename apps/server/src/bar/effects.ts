import { programmed } from '@tempera/core/capture';
import type { StepEffects } from '../kernel/room.ts';
import { changeSheet } from '../kernel/sheets.ts';
import { groupTable } from './tables.ts';

/** What work at the bar changes on its sheets. */
export const barEffects: StepEffects = {
  button: {
    done: (tx, { body: { groupId, button, nextCount }, ...by }) =>
      changeSheet(tx, groupTable, groupId, by, (sheet) => ({
        ...sheet,
        buttons: programmed(sheet.buttons, button, nextCount),
      })),
    // Programmed otherwise since then, it stays so.
    undone: (tx, { body: { groupId, button, count, nextCount }, ...by }) =>
      changeSheet(tx, groupTable, groupId, by, (sheet) =>
        sheet.buttons.some(({ name, counts }) => name === button && counts === nextCount)
          ? { ...sheet, buttons: programmed(sheet.buttons, button, count) }
          : sheet,
      ),
  },
};
