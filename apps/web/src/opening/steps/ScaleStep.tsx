import { Button, Group, Stack, Text } from '@mantine/core';
import { parseNumber } from '@tempera/core/house';
import { checkScale } from '@tempera/core/opening';
import { useState } from 'react';
import { useScaleToCheck } from '../../capture/index.ts';
import { around } from '../../ui/Band.tsx';
import { BandRow } from '../../ui/BandRow.tsx';
import { grams } from '../../kernel/format.ts';
import { bare, unbare } from '../../kernel/units.ts';
import { NumberField } from '../../ui/NumberField.tsx';
import classes from '../Opening.module.css';
import { Warn } from './Warn.tsx';
import type { StepProps } from './stepProps.ts';

/** A bar usually has a weight of this size at hand. */
const USUAL_WEIGHT_G = 200;
const TRUSTED_G = 0.2;

/** A known weight on the tared scale. */
export function ScaleStep({ write }: StepProps) {
  const scale = useScaleToCheck();
  const [known, setKnown] = useState(() => bare('mass', USUAL_WEIGHT_G, 1));
  const [shown, setShown] = useState('');
  const [typedKnown, typedShown] = [parseNumber(known), parseNumber(shown)];
  const knownG = typedKnown === null ? null : unbare('mass', typedKnown);
  const shownG = typedShown === null ? null : unbare('mass', typedShown);
  const verdict = knownG !== null && knownG > 0 && shownG !== null ? checkScale(knownG, shownG) : null;
  return (
    <Stack>
      <Text>
        Dry and level; nothing touches it, and nobody leans on the counter. Two cloths: one for wands, one for the rest.
      </Text>
      <div className={classes.fields}>
        <NumberField label="Known weight" unit="g" step={50} text={known} onText={setKnown} />
        <NumberField label="The scale shows" unit="g" step={0.1} text={shown} onText={setShown} />
      </div>
      {verdict && knownG !== null && (
        <BandRow name="Shows" unit="g" value={shownG} window={around(knownG, TRUSTED_G)} />
      )}
      {verdict && !verdict.trusted && (
        <Warn>
          Off by {grams(Math.abs(verdict.offG))}. Level it, dry it, tare it, and weigh again; or use another scale.
        </Warn>
      )}
      <Group>
        {scale && (
          <Button
            size="lg"
            variant="default"
            onClick={() => {
              const g = scale.read(knownG ?? 0);
              if (g !== null) setShown(bare('mass', g, 1));
            }}
          >
            {scale.label}
          </Button>
        )}
        <Button
          size="xl"
          disabled={!verdict}
          onClick={() => knownG !== null && shownG !== null && write({ step: 'scale', knownG, shownG })}
        >
          {verdict && !verdict.trusted ? 'Note that it is off' : 'The scale is right'}
        </Button>
      </Group>
    </Stack>
  );
}
