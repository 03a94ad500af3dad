import { Button, Group, Text } from '@mantine/core';
import type { Grinder } from '@tempera/contract/bar';
import { chamberFilledMs, dayNumbers } from '@tempera/core/day';
import type { Happening, StandingFacts } from '@tempera/core/facts';
import { MS_PER_MINUTE } from '@tempera/core/numbers';
import { happeningWord } from '../journal/index.ts';
import { useWriteStep } from '../kernel/facts.tsx';
import { useNow } from '../ui/useNow.ts';
import classes from './InChamber.module.css';

/** Ground coffee that waits, by its minutes; where the house grinds ahead they count. @param filledAtMs null: none waits */
export function InChamber({ filledAtMs, nowMs }: { filledAtMs: number | null; nowMs: number }) {
  if (filledAtMs === null) return null;
  const minutes = Math.max(0, Math.floor((nowMs - filledAtMs) / MS_PER_MINUTE));
  const old = minutes >= dayNumbers.chamberMin;
  return (
    <Text className={old ? classes.old : 'faint'}>
      {minutes === 0 ? 'The chamber was filled just now' : `The chamber was filled ${minutes} min ago`}
      {old ? ': use it up first, or throw it away.' : '.'}
    </Text>
  );
}

interface AtBenchProps {
  grinder: Pick<Grinder, 'id' | 'doser'>;
  /** What stands of the whole bar. */
  standing: StandingFacts;
}

/** The same where somebody dials in, with the one tap that says that it was filled, or is used up. */
export function ChamberAtBench({ grinder, standing }: AtBenchProps) {
  const write = useWriteStep();
  const nowMs = useNow();
  if (grinder.doser !== 'chamber') return null;
  const filledAtMs = chamberFilledMs(standing, grinder.id);
  const what: Happening = filledAtMs === null ? 'chamberFilled' : 'chamberEmptied';
  return (
    <Group gap="xs" role="group" aria-label="Its chamber">
      <InChamber filledAtMs={filledAtMs} nowMs={nowMs} />
      <Button
        variant="default"
        mih={48}
        px="sm"
        onClick={() => write({ step: 'happened', what, grinderId: grinder.id })}
      >
        {happeningWord[what]}
      </Button>
    </Group>
  );
}

/** Grounds that wait are of the old mark: they go before what is ground at the new one means anything. */
export const emptyFirstWord = 'Pull the chamber empty: what waits in it is of the old mark';
