import { Button, Group, Stack, Text } from '@mantine/core';
import { ENOUGH_YIELDS, judgeButton, programmed } from '@tempera/core/capture';
import type { GroupSheet } from '@tempera/contract/bar';
import type { Kept } from '@tempera/contract/sheet';
import { useQueryClient } from '@tanstack/react-query';
import { ofKind } from '@tempera/core/facts';
import { useState } from 'react';
import { Link } from 'react-router';
import { ButtonVerdict } from '../../capture/index.ts';
import { useSheets } from '../../kernel/sheets.ts';
import { grams } from '../../kernel/format.ts';
import { Readings } from '../../ui/Readings.tsx';
import type { MorningView } from '../useMorning.ts';
import type { StepProps } from './stepProps.ts';

/** A pump is switched off a count or two after its mark; a hand stops somewhere else. */
const MOST_OVER = 3;

/** Yields of this morning that this button stopped, as the machine's counter tells. */
function countedYieldsG(view: MorningView, groupId: string, grinderId: string, counts: number): number[] {
  return ofKind(view.facts, 'shot').flatMap((fact) => {
    if (fact.groupId !== groupId || fact.grinderId !== grinderId) return [];
    const { volumeCount, flaw, yieldG } = fact.body;
    const isOfButton = volumeCount !== undefined && volumeCount >= counts && volumeCount <= counts + MOST_OVER;
    return Date.parse(fact.at) >= view.morning.fromMs && flaw === null && isOfButton ? [yieldG] : [];
  });
}

/** What a volume button gives in the mean, and what it should count from now on. */
export function ButtonStep({ state, view, write }: StepProps) {
  const groupId = state.job.stationId ?? '';
  const grinderId = state.job.withId ?? '';
  const { data: sheets } = useSheets('group');
  const client = useQueryClient();
  const [typedG, setTypedG] = useState<number[]>([]);
  const sheet = sheets?.find(({ id }) => id === groupId);
  const button = sheet?.sheet.buttons.toSorted((a, b) => b.counts - a.counts)[0];
  const recipe = view.bar.grinders.find(({ id }) => id === grinderId)?.recipe;
  if (!sheet || !button || !recipe) return <Text>This group has no volume button.</Text>;
  const countedG = countedYieldsG(view, groupId, grinderId, button.counts);
  const yieldsG = [...countedG, ...typedG];
  const judged = judgeButton(
    yieldsG.map((yieldG) => ({ count: button.counts, yieldG })),
    button.counts,
    recipe,
  );
  const enough = judged?.enough ?? false;
  const nextCount = judged?.nextCount ?? button.counts;
  // The step programs the sheet too, in the house once the server has heard of it, and here at once.
  const settle = (): void => {
    write({ step: 'button', groupId, button: button.name, count: button.counts, yieldsG, nextCount });
    client.setQueryData<{ sheets: Kept<GroupSheet>[] }>(
      ['sheets', 'group'],
      (read) =>
        read && {
          sheets: read.sheets.map((one) =>
            one.id === groupId
              ? { ...one, sheet: { ...one.sheet, buttons: programmed(one.sheet.buttons, button.name, nextCount) } }
              : one,
          ),
        },
    );
  };
  return (
    <Stack>
      <Text size="lg">
        {button.name} counts <span className="number">{button.counts}</span>. Let the machine stop it {ENOUGH_YIELDS}{' '}
        times, and weigh.
      </Text>
      {countedG.length > 0 && (
        <Text>
          Stopped by it this morning: <span className="number">{countedG.map((g) => grams(g)).join(', ')}</span>.
        </Text>
      )}
      {countedG.length < ENOUGH_YIELDS && (
        <Readings label="Yield" quantity="yieldG" near={recipe.yieldG} values={typedG} onValues={setTypedG} />
      )}
      {judged && <ButtonVerdict judged={judged} counts={button.counts} recipe={recipe} />}
      <Group>
        {!enough && (
          <Button size="xl" component={Link} to={`/bench/${grinderId}/${groupId}?check=1`}>
            Pull {view.nameOf(grinderId)} through {view.nameOf(groupId)}
          </Button>
        )}
        <Button size="xl" variant={enough ? 'filled' : 'default'} disabled={!enough} onClick={settle}>
          {nextCount === button.counts ? 'It holds' : `It is programmed to ${nextCount}`}
        </Button>
      </Group>
    </Stack>
  );
}
