import { Button, Group, Text } from '@mantine/core';
import { looks, type Look } from '@tempera/core/facts';
import { useState } from 'react';
import { useWriteFacts } from '../kernel/facts.tsx';
import type { DayStation } from './useDay.ts';

const lookWord: Record<Look, string> = {
  asItShould: 'As it should',
  fastPale: 'Fast and pale',
  slowDark: 'Slow and dark',
  littleIn: 'Too little in the basket',
};

/** How a customer's shot looked as it ran, in one tap. */
export function Looks({ station, onTooLittle }: { station: DayStation; onTooLittle: () => void }) {
  const writeFacts = useWriteFacts();
  const [noted, setNoted] = useState<Look | null>(null);
  const { grinder, state, lastGroup } = station;
  const see = (sign: Look): void => {
    const at = { grinderId: grinder.id, groupId: lastGroup?.id ?? null };
    writeFacts([{ kind: 'seen', ...at, body: { setting: state.setting, sign, recipeVersionId: grinder.recipe.id } }]);
    setNoted(sign);
    if (sign === 'littleIn') onTooLittle();
  };
  return (
    <div role="group" aria-label="By eye">
      <Text size="sm">By eye, a shot ran</Text>
      <Group gap={8}>
        {looks.map((look) => (
          <Button key={look} mih={48} px="sm" variant="default" onClick={() => see(look)}>
            {lookWord[look]}
          </Button>
        ))}
      </Group>
      <Text role="status" size="sm">
        {noted && `Noted: ${lookWord[noted].toLowerCase()}. A look says less than a timed shot.`}
      </Text>
    </div>
  );
}
