import { Button, Checkbox, Group, Stack } from '@mantine/core';
import { useState } from 'react';
import { OneOf } from '../../ui/OneOf.tsx';
import { Warn } from './Warn.tsx';
import type { StepProps } from './stepProps.ts';

/** A blind basket, detergent or water, rinsed until it runs clear; the screen and the gasket looked at. */
export function BackFlushStep({ state, view, write }: StepProps) {
  const groupId = state.job.stationId ?? '';
  const name = view.nameOf(groupId);
  const [detergent, setDetergent] = useState(true);
  const [rinsedClear, setRinsedClear] = useState(false);
  const [screenDown, setScreenDown] = useState(false);
  const [gasket, setGasket] = useState<'good' | 'worn' | 'unseen'>('unseen');
  const keep = (): void =>
    write({
      step: 'backFlushed',
      groupId,
      detergent,
      rinsedClear: !detergent || rinsedClear,
      screenDown,
      gasketGood: gasket === 'unseen' ? null : gasket === 'good',
    });
  return (
    <Stack>
      <OneOf
        large
        label="Flushed with"
        value={detergent ? 'detergent' : 'water'}
        options={[
          { value: 'detergent', label: 'With detergent' },
          { value: 'water', label: 'With water' },
        ]}
        onChange={(value) => setDetergent(value === 'detergent')}
      />
      {detergent && (
        <Checkbox
          size="lg"
          label="Flushed on with clear water until nothing foams, and the handle wiped"
          checked={rinsedClear}
          onChange={(event) => setRinsedClear(event.currentTarget.checked)}
        />
      )}
      <Checkbox
        size="lg"
        label="The screen was taken down and cleaned"
        checked={screenDown}
        onChange={(event) => setScreenDown(event.currentTarget.checked)}
      />
      <OneOf
        large
        label="The gasket"
        value={gasket}
        options={[
          { value: 'unseen', label: 'Gasket not looked at' },
          { value: 'good', label: 'Good' },
          { value: 'worn', label: 'Hard or cracked' },
        ]}
        onChange={(value) => setGasket(value)}
      />
      <Group>
        <Button size="xl" disabled={detergent && !rinsedClear} onClick={keep}>
          {name} is flushed
        </Button>
      </Group>
      {state.notRight === 'gasketWorn' && <Warn>A worn gasket leaks under pressure. Change it before it is used.</Warn>}
    </Stack>
  );
}
