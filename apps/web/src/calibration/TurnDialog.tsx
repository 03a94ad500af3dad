import { Button, Checkbox, Modal, SimpleGrid, Stack, Text } from '@mantine/core';
import type { Grinder } from '@tempera/contract/bar';
import { directionOf, marksFiner, settingAt } from '@tempera/core/calibration';
import type { PurgeBody } from '@tempera/core/facts';
import { limits, parseNumber, type ServicePolicy } from '@tempera/core/house';
import { Link } from 'react-router';
import { useState } from 'react';
import { dialNumber, marks, percent } from '../kernel/format.ts';
import { NumberField, readQuantity } from '../ui/NumberField.tsx';
import { purgeOf, purgeUnit } from './purgeWords.ts';

interface Props {
  grinder: Grinder;
  setting: number;
  purgeCount: ServicePolicy['purgeCount'];
  /** Chance that it holds where it stands; null: no shot was pulled there yet, and nothing is to be locked. */
  chance: number | null;
  onClose: () => void;
  /** One more shot where it stands, whatever is advised. */
  onAgain: () => void;
  /** It is locked where it stands, with its chance. */
  onLockHere: () => void;
  /** Something was seen or felt. */
  onLook: () => void;
  /** @param doseG weighed along with the turn; null: none was */
  onSave: (done: { setting: number } & PurgeBody, doseG: number | null) => void;
}

/** The most of a count that anybody throws away at once. */
const MOST_COUNTED = 100;

/** A purge as the house counts it: what was typed, and what it is in grams. */
function usePurge(grinder: Grinder, count: Props['purgeCount']) {
  const [text, setText] = useState('0');
  const [kitchen, setKitchen] = useState(false);
  const inGrams = count === 'grams' ? readQuantity(text, 'purgeG') : null;
  const counted = count === 'grams' ? null : parseNumber(text);
  const n = inGrams ? (inGrams.ok ? inGrams.value : null) : counted;
  const ok = n !== null && n >= 0 && n <= MOST_COUNTED;
  return {
    text,
    setText,
    kitchen,
    setKitchen,
    error: ok ? null : inGrams && !inGrams.ok ? inGrams.error : `Type how many ${purgeUnit[count]}, 0 to 100.`,
    warning: inGrams?.ok ? inGrams.warning : null,
    body: ok ? { ...purgeOf(n, count, grinder), ...(kitchen && n > 0 ? { into: 'kitchen' as const } : {}) } : null,
  };
}

/** Instead of the advice: one more shot, a lock as close enough, or where the collar stands now and what was purged. */
export function TurnDialog(props: Props) {
  const { grinder, setting, chance, purgeCount, onClose, onAgain, onLockHere, onLook, onSave } = props;
  const [dialText, setDialText] = useState(dialNumber(setting));
  const dial = parseNumber(dialText);
  const onDial = dial !== null && dial >= grinder.dialMin && dial <= grinder.dialMax;
  const purge = usePurge(grinder, purgeCount);
  const [doseText, setDoseText] = useState('');
  const dose = doseText.trim() === '' ? null : readQuantity(doseText, 'doseG', grinder.recipe.doseG);
  const [few, many] = [grinder.stepMarks, 3 * grinder.stepMarks];
  const turn = (by: number): void =>
    setDialText(dialNumber(settingAt({ ...grinder, range: null }, by, dial ?? setting)));
  return (
    <Modal opened onClose={onClose} title="Something else" centered size="lg">
      <Stack>
        <SimpleGrid cols={{ base: 2, xs: 3 }} spacing={8}>
          <Button size="lg" px={6} variant="default" onClick={onAgain}>
            Pull again{grinder.readsDial ? ` at ${dialNumber(setting)}` : ''}
          </Button>
          <Button size="lg" variant="default" onClick={onLook}>
            Seen or felt
          </Button>
          <Button size="lg" px={6} variant="default" component={Link} to={`/taste/${grinder.id}`}>
            Taste it
          </Button>
        </SimpleGrid>
        {chance === null ? (
          <Text className="faint">To lock it here, pull one shot here first.</Text>
        ) : (
          <Button size="lg" variant="default" onClick={onLockHere}>
            Close enough: lock{grinder.readsDial ? ` at ${dialNumber(setting)}` : ' it here'} ({percent(chance)})
          </Button>
        )}
        <Text>Or write down what was turned:</Text>
        <SimpleGrid cols={{ base: 2, xs: 4 }} spacing={8}>
          {[many, few, -few, -many].map((by) => (
            <Button key={by} variant="default" px={4} onClick={() => turn(by)}>
              {dialNumber(Math.abs(by))} {by > 0 ? 'finer' : 'coarser'}
            </Button>
          ))}
        </SimpleGrid>
        {grinder.readsDial ? (
          <NumberField
            label="The dial now stands at"
            unit=""
            step={grinder.stepMarks}
            text={dialText}
            onText={setDialText}
            error={
              onDial
                ? null
                : `This dial runs from ${grinder.dialMin} to ${grinder.dialMax}. Type the number that the collar shows.`
            }
          />
        ) : (
          <Text aria-live="polite">{turnedWord(grinder, setting, dial ?? setting)}</Text>
        )}
        <NumberField
          label="Purged"
          unit={purgeUnit[purgeCount]}
          step={purgeCount === 'grams' ? limits.purgeG.step : 1}
          text={purge.text}
          onText={purge.setText}
          error={purge.error}
          warning={purge.warning}
        />
        <Checkbox
          label="Kept for the kitchen, not thrown away"
          checked={purge.kitchen}
          onChange={(event) => purge.setKitchen(event.currentTarget.checked)}
        />
        <NumberField
          label="Another dose along with it"
          unit="g"
          step={limits.doseG.step}
          aim={grinder.recipe.doseG}
          optional="if weighed"
          text={doseText}
          onText={setDoseText}
          error={dose && !dose.ok ? dose.error : null}
          warning={dose?.ok ? dose.warning : null}
        />
        <Button
          size="lg"
          disabled={!onDial || purge.body === null || dose?.ok === false}
          onClick={() => onDial && purge.body && onSave({ setting: dial, ...purge.body }, dose?.ok ? dose.value : null)}
        >
          Write it down
        </Button>
      </Stack>
    </Modal>
  );
}

/** Of a collar that shows no number: how far from where it stood. */
function turnedWord(grinder: Grinder, from: number, to: number): string {
  const dial = { ...grinder, range: null };
  const way = directionOf(dial, from, to);
  return way === null ? 'Not turned yet.' : `${marks(Math.abs(marksFiner(dial, to, from)))} ${way} than it stood.`;
}
