import type { RecipeVersion } from '@tempera/contract/house';
import type { FactOf } from '@tempera/core/facts';
import { Band } from '../ui/Band.tsx';
import { dialNumber, grams, seconds } from '../kernel/format.ts';
import classes from './ShotList.module.css';
import { flawWord } from '../journal/index.ts';

interface Props {
  shots: readonly FactOf<'shot'>[];
  recipe: RecipeVersion;
  onEdit: (shot: FactOf<'shot'>) => void;
}

/** The shots of this calibration, newest first; a tap corrects one. */
export function ShotList({ shots, recipe, onEdit }: Props) {
  if (shots.length === 0) return null;
  return (
    <section aria-label="Earlier shots">
      <ol className={classes.list} reversed>
        {shots.toReversed().map((shot, i) => {
          const { setting, doseG, yieldG, timeS, flaw } = shot.body;
          return (
            <li key={shot.id}>
              <button type="button" className={classes.row} onClick={() => onEdit(shot)}>
                <b>
                  <span className="visually-hidden">Open shot </span>
                  {shots.length - i}
                </b>
                <span>
                  <span className="faint">at </span>
                  {dialNumber(setting)}
                </span>
                <span>
                  {grams(doseG)} <span className="faint">in</span>
                </span>
                <span>
                  {grams(yieldG)} <span className="faint">out</span>
                </span>
                <span className="number">{seconds(timeS)}</span>
                <Band name="Time" value={timeS} window={{ low: recipe.timeMinS, high: recipe.timeMaxS }} unit="s" />
                <span className={classes.flaw}>{flaw ? flawWord[flaw].toLowerCase() : ''}</span>
              </button>
            </li>
          );
        })}
      </ol>
    </section>
  );
}
