import { Button, Stack, Text } from '@mantine/core';
import { useLocalStorage } from '@mantine/hooks';
import type { Grinder } from '@tempera/contract/bar';
import { fills, type DoseBody, type DoseWay } from '@tempera/core/facts';
import { parseNumber } from '@tempera/core/house';
import { grams, seconds } from '../kernel/format.ts';
import { NumberField } from '../ui/NumberField.tsx';
import { fillWord, filledG } from './doseWords.ts';

interface Props {
  grinder: Grinder;
  way: Exclude<DoseWay, 'scale' | 'beans'>;
  /** What is asked for, g. */
  askedG: number;
  grindTimeS: number;
  /** Whether the dose is the thing to do now. */
  current: boolean;
  onKeep: (dose: Omit<DoseBody, 'setting'>) => void;
}

/** A dose that nobody weighs: one tap says how full it is, or that it is in. */
export function FillDose({ grinder, way, askedG, grindTimeS, current, onKeep }: Props) {
  const automat = grinder.doser === 'automat';
  const [dialText, setDialText] = useLocalStorage({ key: `tempera.quantity.${grinder.id}`, defaultValue: '' });
  const dial = automat ? parseNumber(dialText) : null;
  const keep = (dose: Pick<DoseBody, 'doseG'> & Partial<DoseBody>): void =>
    onKeep({ grindTimeS: null, measuredBy: 'hand', way, ...dose, ...(dial === null ? {} : { quantityDial: dial }) });
  const filled = way === 'levelled' || way === 'line';
  return (
    <Stack gap="sm">
      {automat && (
        <NumberField
          label="Quantity dial"
          unit=""
          step={1}
          text={dialText}
          onText={setDialText}
          optional="if it shows a number"
        />
      )}
      {filled ? (
        fills.map((fill) => (
          <Button
            key={fill}
            size="lg"
            mih={56}
            h="auto"
            py={6}
            variant={fill === 'level' && current ? 'filled' : 'default'}
            onClick={() => keep({ doseG: filledG(grinder, fill), fill })}
          >
            <span style={{ whiteSpace: 'normal' }}>
              {fillWord(way, fill)}, about {grams(filledG(grinder, fill))}
            </span>
          </Button>
        ))
      ) : (
        <Button
          size="lg"
          mih={56}
          variant={current ? 'filled' : 'default'}
          onClick={() => keep({ doseG: askedG, ...(way === 'timed' ? { grindTimeS } : {}) })}
        >
          {way === 'timed' ? `Ground for ${seconds(grindTimeS)}` : `It is in, about ${grams(askedG)}`}
        </Button>
      )}
      <Text className="faint">{noteOf(grinder, way, filled)}</Text>
    </Stack>
  );
}

function noteOf({ levelG, doser }: Grinder, way: DoseWay, filled: boolean): string {
  if (doser === 'chamber') return 'An empty chamber is primed before its first dose means anything.';
  if (doser === 'automat') return 'Under or over the line: turn the quantity dial, then dose again.';
  if (!filled)
    return way === 'timed' ? 'Heard with the timer’s doubt.' : 'Heard with the doubt that this way deserves.';
  return levelG === null
    ? 'Nobody weighed this basket struck level yet: weigh it once, and write it on its sheet.'
    : 'Heard with half a gram of doubt or so.';
}
