import { asRead, Band, bandWord, type BandProps } from './Band.tsx';
import classes from './BandRow.module.css';

/** A named number, its band, and the word for where it fell. */
export function BandRow({ shown, missing = '', ...band }: BandProps & { shown?: string; missing?: string }) {
  const { name, value, window, unit, digits = 1 } = asRead(band);
  const word = value === null ? missing : bandWord(value, window, unit, digits);
  return (
    <div className={classes.frame}>
      <div className={classes.row}>
        <span className="faint">{name}</span>
        <span className={`number ${classes.value}`}>
          {shown ?? (value === null ? '–' : `${value.toFixed(digits).replace('-', '−')} ${unit}`)}
        </span>
        <Band {...band} />
        <span className={classes.word} data-out={value !== null && word !== 'inside'}>
          {word}
        </span>
      </div>
    </div>
  );
}
