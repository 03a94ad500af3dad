import { Button, Group, Stack, Text } from '@mantine/core';
import { Link } from 'react-router';
import { grams } from '../../kernel/format.ts';
import type { StepProps } from './stepProps.ts';

/** A grinder is dialled in on its bench; the lock there ends the job. */
export function DialStep({ state, view, write }: StepProps) {
  const { stationId, withId } = state.job;
  const grinder = view.bar.grinders.find(({ id }) => id === stationId);
  if (!grinder) return null;
  const { recipe } = grinder;
  return (
    <Stack>
      <Text size="lg">
        {grinder.coffee}: <span className="number">{grams(recipe.doseG)}</span> in,{' '}
        <span className="number">{grams(recipe.yieldG)}</span> out,{' '}
        <span className="number">
          {recipe.timeMinS}–{recipe.timeMaxS} s
        </span>
      </Text>
      <Group>
        <Button
          size="xl"
          component={Link}
          to={`/bench/${grinder.id}/${withId}`}
          onClick={() =>
            state.standing === 'underWay' ? undefined : write({ step: 'begun', job: 'dial', stationId: grinder.id })
          }
        >
          To the bench
        </Button>
      </Group>
    </Stack>
  );
}
