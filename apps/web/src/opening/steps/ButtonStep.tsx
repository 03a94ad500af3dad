import { Button, Stack, Text } from '@mantine/core';
import { nextVolumeCount } from '@tempera/core/capture';
import { useState } from 'react';
import { sentenceOf } from '../../shell/api.ts';
import { useKeepSheet, useSheets } from '../../shell/sheets.ts';
import { BandRow } from '../../ui/BandRow.tsx';
import { Readings } from '../../ui/Readings.tsx';
import classes from '../Opening.module.css';
import { Warn } from './Warn.tsx';
import type { StepProps } from './stepProps.ts';

const ENOUGH = 3;

/** What a volume button gives in the mean, and what it should count from now on. */
export function ButtonStep({ state, view, write }: StepProps) {
  const groupId = state.job.stationId ?? '';
  const { data: sheets } = useSheets('group');
  const keep = useKeepSheet('group');
  const [yieldsG, setYieldsG] = useState<number[]>([]);
  const [failure, setFailure] = useState<unknown>(null);
  const sheet = sheets?.find(({ id }) => id === groupId);
  const button = sheet?.sheet.buttons.toSorted((a, b) => b.counts - a.counts)[0];
  const recipe = view.bar.grinders.find(({ id }) => id === state.job.withId)?.recipe;
  if (!sheet || !button || !recipe) return <Text>This group has no volume button.</Text>;
  const meanG = yieldsG.length === 0 ? null : yieldsG.reduce((sum, g) => sum + g, 0) / yieldsG.length;
  const window = { low: recipe.yieldG - recipe.yieldToleranceG, high: recipe.yieldG + recipe.yieldToleranceG };
  const holds = meanG !== null && meanG >= window.low && meanG <= window.high;
  const counted = yieldsG.map((yieldG) => ({ count: button.counts, yieldG }));
  const nextCount = holds || meanG === null ? button.counts : nextVolumeCount(counted, recipe.yieldG);
  const settle = async (): Promise<void> => {
    try {
      if (nextCount !== button.counts) {
        const buttons = sheet.sheet.buttons.map((one) =>
          one.name === button.name ? { ...one, counts: nextCount } : one,
        );
        await keep(sheet.id, { basedOn: sheet.revision, retired: false, sheet: { ...sheet.sheet, buttons } });
      }
      write({ step: 'button', groupId, button: button.name, count: button.counts, yieldsG, nextCount });
    } catch (error) {
      setFailure(error);
    }
  };
  return (
    <Stack>
      <Text size="lg">
        {button.name} counts <span className="number">{button.counts}</span>. Let the machine stop it {ENOUGH} times,
        and weigh.
      </Text>
      <Readings label="Yield" quantity="yieldG" near={recipe.yieldG} values={yieldsG} onValues={setYieldsG} />
      {meanG !== null && <BandRow name="Mean" unit="g" value={meanG} window={window} />}
      {failure !== null && <Warn>{sentenceOf(failure)}</Warn>}
      <Button size="xl" className={classes.alone} disabled={yieldsG.length < ENOUGH} onClick={() => void settle()}>
        {nextCount === button.counts ? 'It holds' : `It is programmed to ${nextCount}`}
      </Button>
    </Stack>
  );
}
