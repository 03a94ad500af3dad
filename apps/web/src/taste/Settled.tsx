import { Button, Group, Text } from '@mantine/core';
import type { Grinder } from '@tempera/contract/bar';
import { purgeAdviceG } from '@tempera/core/calibration';
import { chamberFilledMs } from '@tempera/core/day';
import type { TasteDecision } from '@tempera/core/taste';
import { Link } from 'react-router';
import { useStandingFacts } from '../bar/index.ts';
import { emptyFirstWord } from '../calibration/index.ts';
import { changeDone } from '../journal/index.ts';
import { cupWord, dialNumber, grams } from '../kernel/format.ts';
import classes from './Taste.module.css';

interface SettledProps {
  grinder: Grinder;
  decision: TasteDecision;
  /** Where the collar belongs now. */
  setting: number;
  /** Where the tasted cup was pulled; null: nobody said. */
  groupId: string | null;
}

/** What the tongue decided just now, and what comes of it: a change counts once a shot shows it. */
export function Settled({ grinder, decision, setting, groupId }: SettledProps) {
  const bench = groupId === null ? `/bench/${grinder.id}` : `/bench/${grinder.id}/${groupId}`;
  const chamberWaits = chamberFilledMs(useStandingFacts(), grinder.id) !== null;
  const changes = decision.flatMap(({ body: { change } }) => change ?? []);
  return (
    <section aria-label="What taste decided" className={classes.said}>
      <Text fw={600} size="lg" role="status">
        {changes.length === 0 ? 'It stays as it is.' : `It is changed: ${changes.map(changeDone).join(', ')}.`}
      </Text>
      {changes.some(({ lever }) => lever === 'grind') && (
        <Text>
          {chamberWaits && `${emptyFirstWord}. `}
          {grinder.readsDial && `The collar belongs at ${dialNumber(setting)} now. `}
          Purge {grams(purgeAdviceG(grinder.recipe.doseG, grinder.retentionG))} before the next dose.
        </Text>
      )}
      <Text>From now on {cupWord(grinder.recipe)}.</Text>
      <Group>
        {changes.length === 0 ? (
          <>
            <Button component={Link} to="/" size="xl">
              Back to the bar
            </Button>
            <Button component={Link} to={bench} size="xl" variant="default">
              To the bench
            </Button>
          </>
        ) : (
          <Button component={Link} to={bench} size="xl">
            Pull one so
          </Button>
        )}
      </Group>
    </section>
  );
}
