import type { GroupSheet } from '@tempera/contract/bar';
import { programmed } from '@tempera/core/capture';
import type { StepEffects } from '../kernel/room.ts';
import { changeSheet } from '../kernel/sheets.ts';
import { groupTable } from './tables.ts';

/** Programs a button from one count to another. One that counts otherwise by now was programmed since, and stays so: a step may come late. */
const reprogram =
  (name: string, from: number, to: number) =>
  (sheet: GroupSheet): GroupSheet =>
    sheet.buttons.some((button) => button.name === name && button.counts === from)
      ? { ...sheet, buttons: programmed(sheet.buttons, name, to) }
      : sheet;

/** What work at the bar changes on its sheets. */
export const barEffects: StepEffects = {
  button: {
    done: (tx, { body: { groupId, button, count, nextCount }, ...by }) =>
      changeSheet(tx, groupTable, groupId, by, reprogram(button, count, nextCount)),
    undone: (tx, { body: { groupId, button, count, nextCount }, ...by }) =>
      changeSheet(tx, groupTable, groupId, by, reprogram(button, nextCount, count)),
  },
};
