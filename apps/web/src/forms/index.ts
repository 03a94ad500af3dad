export { differences, draftOf, type Field } from './fields.ts';
export { DifferenceTable, Overtaken } from './Overtaken.tsx';
export { SheetEditor } from './SheetEditor.tsx';
export { SheetFields } from './SheetFields.tsx';
export { useSheetForm, type SheetForm } from './useSheetForm.ts';
export { useFollowed } from './useFollowed.ts';
