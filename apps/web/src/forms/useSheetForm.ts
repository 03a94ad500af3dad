import { useForm, type UseFormReturnType } from '@mantine/form';
import { useState } from 'react';
import type { z } from 'zod';
import { limitsAt } from '@tempera/contract/field';
import { sentences } from '@tempera/contract/sentences';
import { limitsShown } from '../kernel/units.ts';
import { draftOf, readDraft, type Draft, type Field } from './fields.ts';

export interface SheetForm<T> {
  form: UseFormReturnType<Draft>;
  fields: readonly Field[];
  /** What stands in the form, as far as it can be read. */
  read: Draft;
  /** The sheet, or null while something in it is refused. */
  sheet: T | null;
  changed: boolean;
  /** Shows every refusal; true when there is none. */
  check: () => boolean;
}

/** Why a field is refused; limits are told in the unit it was typed in. */
function refusalOf(schema: z.ZodType, { path, code, message }: z.core.$ZodIssue): string {
  const limits = code === 'custom' ? null : limitsAt(schema, path);
  return limits ? sentences.outOfLimits(limitsShown(limits)) : message;
}

/**
 * A form over a sheet: state by the form library, judged by the contract's own schema, with its sentences.
 * @param complete adds or takes off what the fields alone do not say
 */
export function useSheetForm<S extends z.ZodType>(
  schema: S,
  fields: readonly Field[],
  start: unknown,
  complete: (read: Draft) => Draft = (read) => read,
): SheetForm<z.output<S>> {
  const [base] = useState(start);
  const judge = (draft: Draft): Record<string, string> => {
    const result = schema.safeParse(complete(readDraft(fields, draft, base)));
    if (result.success) return {};
    return Object.fromEntries(result.error.issues.map((issue) => [issue.path.join('.'), refusalOf(schema, issue)]));
  };
  const form = useForm<Draft>({ initialValues: draftOf(fields, start), validate: judge, validateInputOnBlur: true });
  const read = complete(readDraft(fields, form.values, base));
  const parsed = schema.safeParse(read);
  return {
    form,
    fields,
    read,
    sheet: parsed.success ? parsed.data : null,
    changed: form.isDirty(),
    check: () => !form.validate().hasErrors,
  };
}
