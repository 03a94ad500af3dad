import { Button, Group, Stack, Text } from '@mantine/core';
import { parseNumber } from '@tempera/core/house';
import { useState } from 'react';
import { useCoffeeUse } from '../../coffee/index.ts';
import { kilograms } from '../../kernel/format.ts';
import { unbare } from '../../kernel/units.ts';
import { NumberField } from '../../ui/NumberField.tsx';
import classes from '../Opening.module.css';
import type { StepProps } from './stepProps.ts';

const MOST_G = 20_000;
/** Closer than this nobody weighs a tub, or knows a day. */
const SAME_G = 50;

/** Beans out of a closed hopper, into a tub and onto the scale: that is the stock. */
export function EmptyHopperStep({ state, view, write }: StepProps) {
  const { data: use } = useCoffeeUse();
  const [text, setText] = useState('');
  const grinderId = state.job.stationId ?? '';
  const believed = use?.hoppers.find((hopper) => hopper.grinderId === grinderId)?.leftG ?? null;
  const typed = parseNumber(text);
  const tubG = typed === null ? null : unbare('mass', typed);
  const sane = tubG !== null && tubG >= 0 && tubG <= MOST_G;
  const coffee = view.coffeeOf(grinderId);
  return (
    <Stack>
      <Text>
        Close the hopper first, and lift it only then: beans in an open one are on the floor. Into an airtight tub
        {coffee && `, marked ${coffee}`}.
      </Text>
      <div className={classes.fields}>
        <NumberField label="The beans weigh, without the tub" unit="g" step={10} text={text} onText={setText} />
      </div>
      {believed !== null && <Text className="faint">{differenceWord(believed, sane ? tubG : null)}</Text>}
      <Group>
        <Button
          size="xl"
          disabled={!sane}
          onClick={() => sane && write({ step: 'hopperEmptied', grinderId, tubG: Math.round(tubG) })}
        >
          Keep what it weighs
        </Button>
        <Button size="xl" variant="default" onClick={() => write({ step: 'hopperEmptied', grinderId, tubG: null })}>
          In its tub, not weighed
        </Button>
      </Group>
    </Stack>
  );
}

/** What the bags and the pace say, beside what the scale says. */
function differenceWord(believedG: number, tubG: number | null): string {
  const left = believedG < SAME_G ? 'nothing' : `about ${kilograms(believedG)}`;
  const reckoned = `By its bags ${left} should be left`;
  if (tubG === null) return `${reckoned}.`;
  const offG = tubG - believedG;
  if (Math.abs(offG) < SAME_G) return `${reckoned}: it fits.`;
  return `${reckoned}: ${kilograms(Math.abs(offG))} ${offG < 0 ? 'less' : 'more'} than that. From here the scale counts.`;
}
