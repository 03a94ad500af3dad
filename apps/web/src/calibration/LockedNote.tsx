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
  if (cause === 'taste') return `Taste changed what it aims at ${when}: one shot shows whether it holds so.`;
  if (cause === 'opening') return 'It was locked before this run began: it is looked at once more.';
  return `${due ? 'Its check fell due' : 'Next check'} ${when}.`;
}

/** The setting as it was locked, what it rests on, and when to look again. */
export function LockedNote({
  lock,
  standsAt,
  due: dueAt,
  grinder,
  forOther,
  timeZone,
  onElse,
}: {
  lock: FactOf<'lock'>;
  /** Where the collar stands by now: a small move in service keeps the lock. */
  standsAt: number;
  /** When it wants its next check, and why. */
  due: ReturnType<typeof checkDue>;
  grinder: Grinder;
  /** Whether it was locked for another of the coffee's recipes. */
  forOther: boolean;
  timeZone: string;
  /** One more shot, another mark, something seen: whatever was locked. */
  onElse: () => void;
}) {
  const nowMs = useNow();
  const { setting, doseG, chance, expected, shotIds, otherDoses = [] } = lock.body;
  const own = otherDoses.find(({ recipeVersionId }) => recipeVersionId === grinder.recipe.id);
  const doseTimeS = forOther ? (own?.doseTimeS ?? null) : lock.body.doseTimeS;
  const atMs = Date.parse(lock.at);
  const { recipe } = grinder;
  const due = dueAt !== null && nowMs >= dueAt.atMs;
  return (
    <Stack component="section" aria-label="Locked" gap="sm">
      <Title order={2}>
        {due ? 'Last locked' : 'Locked'} {grinder.readsDial ? `at ${dialNumber(setting)}` : 'where it stands'}
      </Title>
      {standsAt !== setting && grinder.readsDial && (
        <Text fw={600}>It stands at {dialNumber(standsAt)} by now: moved in service since.</Text>
      )}
      <Text>
        {moment(atMs, timeZone, nowMs)}, {percent(chance)} sure, from {shotIds.length}{' '}
        {shotIds.length === 1 ? 'shot' : 'shots'}.{doseG !== undefined && !forOther && ` Weigh ${grams(doseG)}.`}
        {doseTimeS !== null && ` Grind time ${seconds(doseTimeS)}.`}
      </Text>
      {forOther ? (
        <Text>It was locked for another recipe of this coffee: one shot here tells how {recipe.name} falls.</Text>
      ) : (
        <BandRow
          name="Expected"
          value={expected.timeS}
          window={{ low: recipe.timeMinS, high: recipe.timeMaxS }}
          doubt={{ low: expected.lowS, high: expected.highS }}
          unit="s"
        />
      )}
      <Text className="faint">
        {dueAt && dueWord(dueAt, due, moment(dueAt.atMs, timeZone, nowMs))} A shot pulled here begins it.
      </Text>
      <Button component={Link} to="/" size="lg" variant={due ? 'default' : 'filled'}>
        Back to the bar
      </Button>
      <Button component={Link} to={`/taste/${grinder.id}`} variant="default" mih={48}>
        Taste it
      </Button>
      <Button variant="default" mih={48} onClick={onElse}>
        Something else
      </Button>
    </Stack>
  );
}
