/** The numbers of a shot that somebody types: on a keypad that starts at the aim, or on a keyboard. */

export type EntryField = 'yield' | 'time' | 'drop' | 'dose';

/** What stands in each field, as text: nothing typed is ever lost. */
export interface ShotEntry {
  active: EntryField;
  texts: Record<EntryField, string>;
  /** The next key of the keypad writes anew, instead of going on. */
  fresh: boolean;
  /** Whether somebody tried to keep it: only then a missing number is called wrong. */
  tried: boolean;
}

export type EntryEvent =
  | { kind: 'focused'; field: EntryField }
  | { kind: 'typed'; field: EntryField; text: string }
  /** A digit of the keypad; the last ones are the decimals that the field's instrument shows. */
  | { kind: 'digit'; digit: string; decimals: number }
  | { kind: 'back'; decimals: number }
  | { kind: 'stepped'; by: number; decimals: number }
  | { kind: 'tried' };

/** What an entry starts from. */
export const freshEntry = (texts: ShotEntry['texts'], active: EntryField): ShotEntry => ({
  active,
  texts,
  fresh: true,
  tried: false,
});

const MOST_DIGITS = 5;
const digitsOf = (text: string): string => text.replace(/\D/g, '').replace(/^0+/, '');
const fromDigits = (digits: string, decimals: number): string =>
  digits === '' ? '' : (Number(digits) / 10 ** decimals).toFixed(decimals);

/** The entry after something was typed, tapped or tried. */
export function entryAfter(entry: ShotEntry, event: EntryEvent): ShotEntry {
  const { active, texts, fresh } = entry;
  const withText = (field: EntryField, text: string): ShotEntry => ({
    ...entry,
    fresh: false,
    texts: { ...texts, [field]: text },
  });
  switch (event.kind) {
    case 'focused':
      return event.field === active ? entry : { ...entry, active: event.field, fresh: true };
    case 'typed':
      return { ...withText(event.field, event.text), active: event.field };
    case 'digit': {
      const digits = `${fresh ? '' : digitsOf(texts[active])}${event.digit}`.slice(0, MOST_DIGITS);
      return withText(active, fromDigits(digitsOf(digits), event.decimals));
    }
    case 'back':
      return withText(active, fresh ? '' : fromDigits(digitsOf(texts[active]).slice(0, -1), event.decimals));
    case 'stepped': {
      const value = Number(texts[active].replace(',', '.')) || 0;
      return withText(active, Math.max(0, value + event.by).toFixed(event.decimals));
    }
    case 'tried':
      return { ...entry, tried: true };
  }
}
