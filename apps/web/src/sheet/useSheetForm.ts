import { useForm, type UseFormReturnType } from '@mantine/form';
import { useState } from 'react';
import type { z } from 'zod';
import { said } from '../ui/format.ts';
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
    return Object.fromEntries(result.error.issues.map(({ path, message }) => [path.join('.'), said(message)]));
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
