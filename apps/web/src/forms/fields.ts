import { checkLimit, parseNumber, type Quantity } from '@tempera/core/house';
import { unusualWord } from '../ui/NumberField.tsx';
import { clockOf, dayWord } from '../kernel/format.ts';
import { bare, dimensionOf, unbare, written } from '../kernel/units.ts';

/** What a sheet asks for, field by field. A form is drawn from it, read by it, and compared by it. */
export type Field =
  TextField | NumberFieldSpec | ChoiceField | YesField | DayField | TimeField | ListField | LinesField;

interface Named {
  name: string;
  label: string;
  /** One line under the label, where the word alone does not say it. */
  says?: string;
  /** Takes the whole width. */
  wide?: boolean;
  /** Begins a new part of the sheet, with this heading. */
  part?: string;
}
interface TextField extends Named {
  type: 'text';
  rows?: number;
}
interface NumberFieldSpec extends Named {
  type: 'number';
  /** Unit as kept; converted where people differ. */
  unit: string;
  step: number;
  digits?: number;
  optional?: boolean;
  /** The trade's own limits, for the warning outside the usual. */
  quantity?: Quantity;
}
interface ChoiceField extends Named {
  type: 'choice';
  options: readonly { value: string; label: string }[];
  /** What no choice is called; absent: one must be made. */
  none?: string;
}
interface YesField extends Named {
  type: 'yes';
}
interface DayField extends Named {
  type: 'day';
  optional?: boolean;
}
interface TimeField extends Named {
  type: 'time';
}
interface ListField extends Named {
  type: 'list';
  of: readonly Field[];
  blank: Record<string, unknown>;
  /** What one of them is called: "gauge". */
  one: string;
}
interface LinesField extends Named {
  type: 'lines';
  one: string;
}

/** A form's state: numbers as typed, so that nothing typed is ever lost. */
export type Draft = Record<string, unknown>;

function at(value: unknown, path: string): unknown {
  return path.split('.').reduce<unknown>((inner, key) => (inner as Record<string, unknown> | null)?.[key], value);
}

function withAt(target: Draft, path: string, value: unknown): void {
  const keys = path.split('.');
  const last = keys.pop() ?? '';
  let inner = target;
  for (const key of keys) inner = (inner[key] ??= {}) as Draft;
  inner[last] = value;
}

/** What a form starts from. */
export function draftOf(fields: readonly Field[], sheet: unknown): Draft {
  const draft: Draft = {};
  for (const field of fields) withAt(draft, field.name, typedOf(field, at(sheet, field.name)));
  return draft;
}

function typedOf(field: Field, value: unknown): unknown {
  switch (field.type) {
    case 'number':
      return typeof value === 'number' ? numberText(field, value) : '';
    case 'list':
      return ((value ?? []) as unknown[]).map((item) => draftOf(field.of, item));
    case 'lines':
      return [...((value ?? []) as string[])];
    case 'time':
      return typeof value === 'number' ? clockOf(value) : '';
    case 'yes':
      return value === true;
    case 'text':
    case 'choice':
    case 'day':
      return value ?? '';
  }
}

const USUAL_DIGITS = 3;

function numberText({ unit, digits = USUAL_DIGITS }: NumberFieldSpec, value: number): string {
  const dimension = dimensionOf(unit);
  return dimension === null ? String(Number(value.toFixed(digits))) : bare(dimension, value, digits);
}

/**
 * What was typed, as the sheet keeps it; a number that was not touched comes back exactly as it was kept.
 * @param before the sheet that the draft was made from
 */
export function readDraft(fields: readonly Field[], draft: Draft, before: unknown): Draft {
  const sheet: Draft = {};
  for (const field of fields) {
    withAt(sheet, field.name, keptOf(field, at(draft, field.name), at(before, field.name)));
  }
  return sheet;
}

function keptOf(field: Field, typed: unknown, before: unknown): unknown {
  switch (field.type) {
    case 'number':
      return readNumber(field, String(typed), before);
    case 'list':
      return (typed as Draft[]).map((item, i) => readDraft(field.of, item, (before as unknown[] | null)?.[i]));
    case 'time':
      return readTime(String(typed));
    case 'choice':
      return typed === '' && field.none !== undefined ? null : typed;
    case 'day':
      return typed === '' && field.optional ? null : typed;
    case 'text':
    case 'yes':
    case 'lines':
      return typed;
  }
}

function readNumber(field: NumberFieldSpec, typed: string, before: unknown): number | null {
  if (typed.trim() === '' && field.optional) return null;
  if (typeof before === 'number' && numberText(field, before) === typed) return before;
  const number = parseNumber(typed) ?? NaN;
  const dimension = dimensionOf(field.unit);
  return dimension === null ? number : unbare(dimension, number);
}

function readTime(typed: string): number {
  const match = /^(\d{1,2}):(\d{2})$/.exec(typed);
  return match ? 60 * Number(match[1]) + Number(match[2]) : NaN;
}

/** A number outside the trade's usual: kept as typed, but said. */
export function warningOf(field: Field, value: unknown): string | null {
  if (field.type !== 'number' || !field.quantity || typeof value !== 'number') return null;
  if (checkLimit(field.quantity, value) !== 'unusual') return null;
  return unusualWord(field.quantity);
}

/** A field's value in words, for comparing two versions. */
function wordOf(field: Field, value: unknown): string {
  if (value === null || value === undefined || value === '') return 'nothing';
  switch (field.type) {
    case 'number': {
      const dimension = dimensionOf(field.unit);
      if (dimension !== null) return written(dimension, value as number, field.digits ?? 1);
      return `${Number((value as number).toFixed(USUAL_DIGITS))}${field.unit === '' ? '' : ` ${field.unit}`}`;
    }
    case 'choice':
      return field.options.find((option) => option.value === value)?.label ?? 'something no longer there';
    case 'yes':
      return value === true ? 'yes' : 'no';
    case 'day':
      return dayWord(value as string);
    case 'time':
      return clockOf(value as number);
    case 'list':
      return (
        (value as object[])
          .map((item) => field.of.map((inner) => wordOf(inner, at(item, inner.name))).join(' '))
          .join('; ') || 'none'
      );
    case 'lines':
      return (value as string[]).map((line, i) => `${i + 1}. ${line}`).join('; ') || 'none';
    case 'text':
      return value as string;
  }
}

export interface Difference {
  label: string;
  before: string;
  after: string;
}

/** What differs between two sheets, in words, in the order of the fields. */
export function differences(fields: readonly Field[], before: unknown, after: unknown): Difference[] {
  return fields
    .map((field) => ({
      label: field.label,
      before: wordOf(field, at(before, field.name)),
      after: wordOf(field, at(after, field.name)),
    }))
    .filter((difference) => difference.before !== difference.after);
}
