import { useId } from 'react';
import classes from './OneOf.module.css';

interface Props<T extends string> {
  /** The value itself where it is the word for it, too. */
  options: readonly (T | { value: T; label: string })[];
  /** Null where nobody has chosen yet. */
  value: T | null;
  onChange: (value: T) => void;
  /** What is chosen, for who hears the page; or `labelledBy`, the id of the words that say so. */
  label?: string;
  labelledBy?: string;
  fullWidth?: boolean;
  large?: boolean;
  className?: string | undefined;
}

/**
 * One of a few, side by side: the browser's own radio buttons, so that arrows, form and reader know them. It measures nothing: a
 * mark that slides from one to the next has to be measured, and then everything beside it is drawn twice before it is seen.
 */
export function OneOf<T extends string>({ options, value, onChange, label, labelledBy, ...look }: Props<T>) {
  const name = useId();
  return (
    <div
      role="radiogroup"
      aria-label={label}
      aria-labelledby={labelledBy}
      className={[classes.row, look.className].filter(Boolean).join(' ')}
      data-full-width={look.fullWidth || undefined}
      data-large={look.large || undefined}
    >
      {options.map((option) => {
        const one = typeof option === 'string' ? { value: option, label: option } : option;
        return (
          <label key={one.value} className={classes.option}>
            <input
              type="radio"
              className={classes.input}
              name={name}
              value={one.value}
              checked={one.value === value}
              onChange={() => onChange(one.value)}
            />
            <span className={classes.word}>{one.label}</span>
          </label>
        );
      })}
    </div>
  );
}
