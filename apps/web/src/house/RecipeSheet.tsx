import { Text, Title } from '@mantine/core';
import type { RecipeVersion } from '@tempera/contract/house';
import { pumpWindowS } from '@tempera/core/house';
import { BandRow } from '../ui/BandRow.tsx';
import { dayWord, degrees, grams } from '../kernel/format.ts';
import classes from './House.module.css';
import { cardLines, versionWord } from './recipeWords.ts';

const NEVER = '2000-01-01';
export const fromWord = (validFrom: string): string =>
  validFrom === NEVER ? 'from the start' : `from ${dayWord(validFrom)}`;

/** A recipe as it hangs at the machine: on the screen, and on one sheet of paper. */
export function RecipeSheet({ recipe, basketName }: { recipe: RecipeVersion; basketName: string | null }) {
  const { taste, roaster, prepSteps } = recipe;
  const window = pumpWindowS(recipe);
  return (
    <article className={`sheet ${classes.card}`} aria-label={recipe.name}>
      <div className={classes.numbers}>
        <dl className={classes.lines}>
          {cardLines(recipe, basketName).map(({ what, says }) => (
            <div key={what}>
              <dt>{what}</dt>
              <dd>{says}</dd>
            </div>
          ))}
        </dl>
        {taste && (
          <div>
            <Title order={2} size="h3">
              How it should taste
            </Title>
            <TasteBand low="sour" high="bitter" of={taste.sourBitter} />
            <TasteBand low="weak" high="strong" of={taste.weakStrong} />
          </div>
        )}
        {roaster && (
          <div>
            <Title order={2} size="h3">
              Where the roaster begins
            </Title>
            <BandRow name="Time" unit="s" value={roaster.timeS} window={{ low: window.min, high: window.max }} />
            <Text>{cardOfRoaster(roaster)}</Text>
            <Text className="faint">{roaster.words}</Text>
          </div>
        )}
      </div>
      {prepSteps.length > 0 && (
        <div>
          <Title order={2} size="h3">
            Each time the same
          </Title>
          <ol className={classes.steps}>
            {prepSteps.map((step, i) => (
              <li key={i}>{step}</li>
            ))}
          </ol>
        </div>
      )}
      <Text className={`faint ${classes.foot}`}>{versionWord(recipe, fromWord(recipe.validFrom))}</Text>
    </article>
  );
}

function cardOfRoaster({ doseG, yieldG, tempC }: NonNullable<RecipeVersion['roaster']>): string {
  return [`${grams(doseG)} in, ${grams(yieldG)} out`, tempC === null ? null : degrees(tempC)]
    .filter(Boolean)
    .join(', ');
}

/** A stretch of a tasting axis. */
function TasteBand({ low, high, of }: { low: string; high: string; of: { low: number; high: number } }) {
  const WHOLE = 10;
  return (
    <div className={classes.taste}>
      <span className="faint">{low}</span>
      <svg className="band" role="img" aria-label={`${low} to ${high}: between ${of.low} and ${of.high} of 10`}>
        <line className="band-line" x1="0" x2="100%" y1="15" y2="15" />
        <rect
          className="band-window"
          x={`${(100 * of.low) / WHOLE}%`}
          width={`${(100 * (of.high - of.low)) / WHOLE}%`}
          y="8"
          height="14"
        />
        {[of.low, of.high].map((edge) => (
          <line
            key={edge}
            className="band-edge"
            x1={`${(100 * edge) / WHOLE}%`}
            x2={`${(100 * edge) / WHOLE}%`}
            y1="4"
            y2="26"
          />
        ))}
      </svg>
      <span className="faint">{high}</span>
    </div>
  );
}
