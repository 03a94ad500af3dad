import { Button, Stack, Text } from '@mantine/core';
import { useWriteFacts } from '../../kernel/facts.tsx';
import { grams } from '../../kernel/format.ts';
import { useSheets } from '../../kernel/sheets.ts';
import { BandRow } from '../../ui/BandRow.tsx';
import type { StepProps } from './stepProps.ts';
import { Warn } from './Warn.tsx';

/** The dose that sat in the chute overnight goes away, and the house's dose is held against its basket. */
export function FirstDoseStep({ state, view, write }: StepProps) {
  const writeFacts = useWriteFacts();
  const { data: baskets } = useSheets('basket');
  const grinderId = state.job.stationId ?? '';
  const grinder = view.bar.grinders.find(({ id }) => id === grinderId);
  if (!grinder) return null;
  const { doseG, basketId } = grinder.recipe;
  const basket = baskets?.find(({ id }) => id === basketId)?.sheet;
  return (
    <Stack>
      <Text size="lg">Grind one dose, about {grams(doseG)}, and throw it away.</Text>
      {basket && (
        <BandRow
          name={basket.name}
          unit="g"
          value={doseG}
          window={{ low: basket.minG, high: basket.maxG }}
          shown={grams(doseG)}
        />
      )}
      {basket && (doseG < basket.minG || doseG > basket.maxG) && (
        <Warn>The house dose does not fit {basket.name}. Take the recipe’s basket, or have the recipe looked at.</Warn>
      )}
      <Button
        size="xl"
        onClick={() => {
          writeFacts([{ kind: 'purge', grinderId, groupId: null, body: { purgeG: doseG, why: 'stale' } }]);
          write({ step: 'firstDose', grinderId });
        }}
      >
        It is thrown away
      </Button>
    </Stack>
  );
}
