import { ActionIcon, TextInput } from '@mantine/core';
import { quantityWord, sentences } from '@tempera/contract/sentences';
import { checkLimit, limits, parseNumber, shownSpan, type Dimension, type Quantity } from '@tempera/core/house';
import { IconMinus, IconPlus } from '@tabler/icons-react';
import { useId } from 'react';
import { bare, dimensionOf, limitsShown, unbare, unitShown, unitsNow } from '../kernel/units.ts';
import classes from './NumberField.module.css';

/** What stands in a number field: the text as typed is never thrown away. */
export type Reading = { ok: true; value: number; warning: string | null } | { ok: false; error: string };

/** A kept quantity as a field shows it to this person. */
export function textOf(quantity: Quantity, value: number): string {
  const dimension = dimensionOf(limits[quantity].unit);
  return dimension === null ? String(value) : bare(dimension, value, 1);
}

/** What no instrument of the bar can tell apart is the same number. */
const roundKept = (value: number): number => Math.round(value * 100) / 100;

/** Reads typed text as a quantity of the trade, with the house's limits. Comma and point both mean the decimal. */
export function readQuantity(text: string, quantity: Quantity, recipeValue?: number): Reading {
  const { accept, usual, unit } = limits[quantity];
  const typed = parseNumber(text);
  if (typed === null) {
    return { ok: false, error: sentences.notANumber(quantity, textOf(quantity, recipeValue ?? usual[0])) };
  }
  const dimension = dimensionOf(unit);
  const value = dimension === null ? typed : roundKept(unbare(dimension, typed));
  const verdict = checkLimit(quantity, value, recipeValue);
  if (verdict === 'refused') {
    return {
      ok: false,
      error: sentences.outOfLimits(limitsShown({ what: quantityWord(quantity), min: accept[0], max: accept[1], unit })),
    };
  }
  return { ok: true, value, warning: verdict === 'unusual' ? unusualWord(quantity) : null };
}

/** The trade's usual, told to whoever typed something else. */
export function unusualWord(quantity: Quantity): string {
  const { usual, unit } = limits[quantity];
  return sentences.unusual(limitsShown({ min: usual[0], max: usual[1], unit }));
}

interface Props {
  label: string;
  /** As kept; shown as this person reads it. */
  unit: string;
  /** Of the kept unit. */
  step: number;
  text: string;
  onText: (text: string) => void;
  /** Where an empty field begins when it is stepped, as kept. */
  aim?: number;
  /** Shown once somebody has typed. */
  error?: string | null;
  warning?: string | null;
  /** It may stay empty; what would make somebody fill it in: "if seen". */
  optional?: boolean | string;
}

const DIGITS_OF_STEP = 3;

/** A step of about the same size, round in this person's unit. */
const stepIn = (dimension: Dimension, step: number): number =>
  Number(shownSpan(dimension, step, unitsNow()).toPrecision(1));

/** A number typed or stepped, with its unit; big enough for wet hands. */
export function NumberField({ label, unit, step, aim, text, onText, error, warning, optional }: Props) {
  const noteId = useId();
  const dimension = dimensionOf(unit);
  const ownStep = dimension === null ? step : stepIn(dimension, step);
  const stepBy = (sign: number): void => {
    const typed = parseNumber(text);
    if (typed === null && aim !== undefined) {
      onText(dimension === null ? String(aim) : bare(dimension, aim, 1));
      return;
    }
    const value = typed ?? 0;
    onText(String(Number((Math.round((value + sign * ownStep) / ownStep) * ownStep).toFixed(DIGITS_OF_STEP))));
  };
  return (
    <div className={classes.field}>
      <ActionIcon className={classes.step} variant="default" aria-label={`${label}: less`} onClick={() => stepBy(-1)}>
        <IconMinus />
      </ActionIcon>
      <TextInput
        className={classes.input}
        label={`${label}${unit === '' ? '' : `, ${unitShown(unit)}`}${optional ? ` (${optional === true ? 'if seen' : optional})` : ''}`}
        size="lg"
        inputMode="decimal"
        autoComplete="off"
        value={text}
        onChange={(event) => onText(event.currentTarget.value)}
        onKeyDown={(event) => {
          const sign = { ArrowUp: 1, ArrowDown: -1 }[event.key];
          if (sign === undefined) return;
          event.preventDefault();
          stepBy(sign);
        }}
        error={Boolean(error)}
        aria-describedby={noteId}
      />
      <ActionIcon className={classes.step} variant="default" aria-label={`${label}: more`} onClick={() => stepBy(1)}>
        <IconPlus />
      </ActionIcon>
      <p id={noteId} className={classes.note} role={error ? 'alert' : undefined} data-error={Boolean(error)}>
        {error ?? warning}
      </p>
    </div>
  );
}
