import { Button, Modal, Stack, Text } from '@mantine/core';
import type { Grinder } from '@tempera/contract/bar';
import { cleanSetting } from '@tempera/core/calibration';
import { limits, parseNumber, type Quantity } from '@tempera/core/house';
import { changesTo } from '@tempera/core/taste';
import { useState } from 'react';
import { marks } from '../kernel/format.ts';
import { NumberField, readQuantity, textOf } from '../ui/NumberField.tsx';
import { changesSay } from './tasteWords.ts';
import type { Tasting } from './useTasting.ts';

interface OwnChangeProps {
  tasting: Tasting;
  grinder: Grinder;
}

/** Whoever tastes may want another number, or two at once, than the house's table names. */
export function OwnChange(props: OwnChangeProps) {
  const [open, setOpen] = useState(false);
  return (
    <>
      <Button size="md" variant="default" onClick={() => setOpen(true)}>
        Other numbers
      </Button>
      {open && <OwnChangeDialog {...props} onClose={() => setOpen(false)} />}
    </>
  );
}

/** Further at once nobody turns a collar for taste. */
const MOST_STEPS = 10;

const asItIs = <T,>(value: T) => ({ ok: true as const, value, warning: null });

function turnError(isTurn: boolean, isOnDial: boolean, { stepMarks, dialMin, dialMax }: Grinder): string | null {
  if (!isTurn) return `At most ${marks(MOST_STEPS * stepMarks)} at once: 2 is finer, -2 is coarser.`;
  return isOnDial ? null : `This dial runs from ${dialMin} to ${dialMax}.`;
}

type Field = Extract<Quantity, 'yieldG' | 'doseG' | 'tempC'>;

function OwnChangeDialog({ tasting, grinder, onClose }: OwnChangeProps & { onClose: () => void }) {
  const { recipe } = grinder;
  const first = {
    yieldG: textOf('yieldG', recipe.yieldG),
    doseG: textOf('doseG', recipe.doseG),
    tempC: recipe.tempC === null ? '' : textOf('tempC', recipe.tempC),
  };
  const [texts, setTexts] = useState(first);
  const [finerText, setFinerText] = useState('0');
  // What nobody typed is what it was, however it is rounded for whoever reads it.
  const read = (name: Field, is: number | null) =>
    texts[name] === first[name] ? asItIs(is) : readQuantity(texts[name], name, is ?? undefined);
  const yieldG = read('yieldG', recipe.yieldG);
  const doseG = read('doseG', recipe.doseG);
  const tempC = read('tempC', recipe.tempC);
  const finer = parseNumber(finerText);
  const marksFiner = finer === null ? null : cleanSetting(Math.round(finer / grinder.stepMarks) * grinder.stepMarks);
  const isTurn = marksFiner !== null && Math.abs(marksFiner) <= MOST_STEPS * grinder.stepMarks;
  const isOnDial = !isTurn || marksFiner === 0 || tasting.can({ lever: 'grind', by: marksFiner });
  const wanted =
    yieldG.ok && doseG.ok && tempC.ok && isTurn && isOnDial
      ? { yieldG: yieldG.value ?? recipe.yieldG, doseG: doseG.value ?? recipe.doseG, tempC: tempC.value, marksFiner }
      : null;
  const changes = wanted ? changesTo(wanted, recipe) : [];
  const field = (name: Field, label: string, now: ReturnType<typeof read>) => (
    <NumberField
      label={label}
      unit={limits[name].unit}
      step={limits[name].step}
      text={texts[name]}
      onText={(text) => setTexts((before) => ({ ...before, [name]: text }))}
      error={now.ok ? null : now.error}
      warning={now.ok ? now.warning : null}
    />
  );
  return (
    <Modal opened onClose={onClose} title="Other numbers" centered size="lg">
      <Stack>
        {field('yieldG', 'Stop at', yieldG)}
        {field('doseG', 'Weigh', doseG)}
        <NumberField
          label="Finer, or below 0 coarser"
          unit="marks"
          step={grinder.stepMarks}
          text={finerText}
          onText={setFinerText}
          error={turnError(isTurn, isOnDial, grinder)}
        />
        {tasting.can({ lever: 'temperature', by: 1 }) && field('tempC', 'Water', tempC)}
        <Text fw={600} aria-live="polite">
          {changes.length === 0 ? 'Nothing is changed yet.' : `${changesSay(grinder, changes, tasting)}.`}
        </Text>
        <Button
          size="xl"
          disabled={changes.length === 0}
          onClick={() => {
            tasting.settle(changes);
            onClose();
          }}
        >
          Change it so
        </Button>
      </Stack>
    </Modal>
  );
}
