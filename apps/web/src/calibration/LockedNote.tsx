import { Button, Stack, Text, Title } from '@mantine/core';
import type { Grinder } from '@tempera/contract/bar';
import type { checkDue, DueCause } from '@tempera/core/bar';
import type { FactOf } from '@tempera/core/facts';
import { Link } from 'react-router';
import { BandRow } from '../ui/BandRow.tsx';
import { dialNumber, grams, moment, percent, seconds } from '../kernel/format.ts';
import { useNow } from '../ui/useNow.ts';

/** Why it is looked at again, and when. */
function dueWord({ cause }: { cause: DueCause }, due: boolean, when: string): string {
  if (cause === 'newBag') return `Another bag went in ${when}, so its check is due.`;
  if (cause === 'opening') return 'It was locked before the opening: every grinder is looked at in the morning.';
  return `${due ? 'Its check fell due' : 'Next check'} ${when}.`;
}

/** The setting as it was locked, what it rests on, and when to look again. */
export function LockedNote({
  lock,
  due: dueAt,
  grinder,
  timeZone,
}: {
  lock: FactOf<'lock'>;
  /** When it wants its next check, and why. */
  due: ReturnType<typeof checkDue>;
  grinder: Grinder;
  timeZone: string;
}) {
  const nowMs = useNow();
  const { setting, doseTimeS, doseG, chance, expected, shotIds } = lock.body;
  const atMs = Date.parse(lock.at);
  const { recipe } = grinder;
  const due = dueAt !== null && nowMs >= dueAt.atMs;
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
        {dueAt && dueWord(dueAt, due, moment(dueAt.atMs, timeZone, nowMs))} A shot pulled here begins it.
      </Text>
      <Button component={Link} to="/" size="lg" variant={due ? 'default' : 'filled'}>
        Back to the bar
      </Button>
    </Stack>
  );
}
