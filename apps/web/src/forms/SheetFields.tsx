import '@mantine/core/styles/Switch.css';
import { ActionIcon, Button, Select, Switch, Textarea, TextInput, Title } from '@mantine/core';
import { IconTrash } from '@tabler/icons-react';
import { Fragment, type ReactNode } from 'react';
import { NumberField } from '../ui/NumberField.tsx';
import { warningOf, type Field } from './fields.ts';
import { Lines } from './Lines.tsx';
import classes from './Sheet.module.css';
import type { SheetForm } from './useSheetForm.ts';

interface FieldsProps {
  sheetForm: SheetForm<unknown>;
  readOnly?: boolean;
  /** A part of the form's fields; all of them when absent. */
  only?: readonly Field[];
  /** What stands in the grid right after a field: a number that it computes. */
  after?: Record<string, ReactNode>;
}

/** Every field of a sheet, drawn from its description. */
export function SheetFields({ sheetForm, readOnly = false, only = sheetForm.fields, after = {} }: FieldsProps) {
  return (
    <fieldset className={classes.fields} disabled={readOnly}>
      {only.map((field) => (
        <Fragment key={field.name}>
          {field.part && (
            <Title order={2} size="h3" className={classes.part}>
              {field.part}
            </Title>
          )}
          <OneField field={field} path={field.name} sheetForm={sheetForm} />
          {after[field.name]}
        </Fragment>
      ))}
    </fieldset>
  );
}

interface Props {
  field: Field;
  path: string;
  sheetForm: SheetForm<unknown>;
}

const asError = (error: unknown): string | null => (typeof error === 'string' ? error : null);

/** What stands at a path such as `gauges.0.name`. */
const at = (sheet: unknown, path: string): unknown =>
  path.split('.').reduce((inner, key) => (inner as Record<string, unknown>)[key], sheet);

function OneField({ field, path, sheetForm }: Props) {
  const { form, read } = sheetForm;
  const error = asError(form.errors[path]);
  const set = (value: unknown): void => form.setFieldValue(path, value);
  const judge = (): void => void form.validateField(path);
  const value = at(form.values, path);
  const wide = field.wide ? classes.wide : undefined;
  switch (field.type) {
    case 'number':
      return (
        <div className={wide} onBlur={judge}>
          <NumberField
            label={field.label}
            unit={field.unit}
            step={field.step}
            text={value as string}
            onText={set}
            error={error}
            warning={warningOf(field, at(read, path)) ?? field.says ?? null}
          />
        </div>
      );
    case 'choice':
      return (
        <Select
          className={wide}
          label={field.label}
          description={field.says}
          data={[...(field.none === undefined ? [] : [{ value: '', label: field.none }]), ...field.options]}
          value={value as string}
          allowDeselect={false}
          searchable={field.options.length > MANY}
          onChange={(chosen) => set(chosen ?? '')}
          error={error}
        />
      );
    case 'yes':
      return (
        <Switch
          className={`${classes.yes} ${wide ?? ''}`}
          size="lg"
          label={field.label}
          description={field.says}
          checked={value as boolean}
          onChange={(event) => set(event.currentTarget.checked)}
        />
      );
    case 'list':
      return <ListOf field={field} path={path} sheetForm={sheetForm} />;
    case 'lines':
      return (
        <Lines
          label={field.label}
          one={field.one}
          lines={value as string[]}
          onLines={set}
          errorOf={(i) => asError(form.errors[`${path}.${i}`])}
          error={error}
        />
      );
    case 'text':
      return field.rows ? (
        <Textarea
          className={wide}
          size="md"
          label={field.label}
          description={field.says}
          rows={field.rows}
          value={value as string}
          onChange={(event) => set(event.currentTarget.value)}
          onBlur={judge}
          error={error}
        />
      ) : (
        <Plain {...{ field, value: value as string, set, judge, error }} type="text" />
      );
    case 'day':
      return <Plain {...{ field, value: value as string, set, judge, error }} type="date" />;
    case 'time':
      return <Plain {...{ field, value: value as string, set, judge, error }} type="time" />;
  }
}

/** From so many choices on, one is found by typing. */
const MANY = 8;

interface PlainProps {
  field: Field;
  type: 'text' | 'date' | 'time';
  value: string;
  set: (value: string) => void;
  judge: () => void;
  error: string | null;
}

function Plain({ field, type, value, set, judge, error }: PlainProps) {
  return (
    <TextInput
      {...(field.wide ? { className: classes.wide ?? '' } : {})}
      type={type}
      size="md"
      label={field.label}
      description={field.says}
      autoComplete="off"
      value={value}
      onChange={(event) => set(event.currentTarget.value)}
      onBlur={judge}
      error={error}
    />
  );
}

function ListOf({ field, path, sheetForm }: Props & { field: Extract<Field, { type: 'list' }> }) {
  const { form } = sheetForm;
  const items = form.values[path] as object[];
  const error = asError(form.errors[path]);
  return (
    <div className={classes.wide} role="group" aria-label={field.label}>
      <span className={classes.listLabel}>{field.label}</span>
      {items.map((_, i) => (
        <div key={i} className={classes.item}>
          <div className={classes.itemFields}>
            {field.of.map((inner) => (
              <OneField key={inner.name} field={inner} path={`${path}.${i}.${inner.name}`} sheetForm={sheetForm} />
            ))}
          </div>
          <ActionIcon
            variant="default"
            aria-label={`Take ${field.one} ${i + 1} off`}
            onClick={() => form.removeListItem(path, i)}
          >
            <IconTrash />
          </ActionIcon>
        </div>
      ))}
      {error && (
        <p role="alert" className={classes.error}>
          {error}
        </p>
      )}
      <Button variant="default" onClick={() => form.insertListItem(path, { ...field.blank })}>
        Add a {field.one}
      </Button>
    </div>
  );
}
