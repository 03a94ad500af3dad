import { MS_PER_MINUTE } from '@tempera/core/numbers';
import { Button, Stack, Text, Title } from '@mantine/core';
import type { Grinder } from '@tempera/contract/bar';
import type { FactOf } from '@tempera/core/facts';
import { Link } from 'react-router';
import { BandRow } from '../ui/BandRow.tsx';
import { dialNumber, grams, moment, percent, seconds } from '../ui/format.ts';
import { useNow } from '../ui/useNow.ts';

/** When the check after a lock falls due. */
export const dueAtMs = (lock: FactOf<'lock'>): number => Date.parse(lock.at) + lock.body.nextCheckMin * MS_PER_MINUTE;

/** The setting as it was locked, what it rests on, and when to look again. */
export function LockedNote({
  lock,
  newBagAtMs,
  grinder,
  timeZone,
}: {
  lock: FactOf<'lock'>;
  /** When another bag went in since; null: none did. */
  newBagAtMs: number | null;
  grinder: Grinder;
  timeZone: string;
}) {
  const nowMs = useNow();
  const { setting, doseTimeS, doseG, chance, expected, shotIds } = lock.body;
  const atMs = Date.parse(lock.at);
  const { recipe } = grinder;
  const due = newBagAtMs !== null || nowMs >= dueAtMs(lock);
  return (
    <Stack component="section" aria-label="Locked" gap="sm">
      <Title order={2}>
        {due ? 'Last locked' : 'Locked'} at {dialNumber(setting)}
      </Title>
      <Text>
        {moment(atMs, timeZone, nowMs)}, {percent(chance)} sure, from {shotIds.length}{' '}
        {shotIds.length === 1 ? 'shot' : 'shots'}.{doseG !== undefined && ` Weigh ${grams(doseG)}.`}
        {doseTimeS !== null && ` Grind time ${seconds(doseTimeS)}.`}
      </Text>
      <BandRow
        name="Expected"
        value={expected.timeS}
        window={{ low: recipe.timeMinS, high: recipe.timeMaxS }}
        doubt={{ low: expected.lowS, high: expected.highS }}
        unit="s"
      />
      <Text className="faint">
        {newBagAtMs === null
          ? `${due ? 'Its check fell due' : 'Next check'} ${moment(dueAtMs(lock), timeZone, nowMs)}.`
          : `Another bag went in ${moment(newBagAtMs, timeZone, nowMs)}, so its check is due.`}{' '}
        A shot pulled here begins it.
      </Text>
      <Button component={Link} to="/" size="lg" variant={due ? 'default' : 'filled'}>
        Back to the bar
      </Button>
    </Stack>
  );
}
