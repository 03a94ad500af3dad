import { Button, Group, Stack, Text } from '@mantine/core';
import type { Gauge } from '@tempera/contract/bar';
import { judgeGauges } from '@tempera/core/bar';
import { parseNumber } from '@tempera/core/house';
import type { GaugeReading } from '@tempera/core/facts';
import { useState } from 'react';
import { dimensionOf, numberShown, unbare } from '../kernel/units.ts';
import { NumberField } from '../ui/NumberField.tsx';
import classes from './Pieces.module.css';

/** What the gauges show, against their limits; hot is what they say. */
export function Gauges({
  gauges: byEye,
  byDevice = [],
  reader,
  onHot,
}: {
  gauges: readonly Gauge[];
  /** What only a machine that can tell shows: there once it was read. */
  byDevice?: readonly Gauge[];
  /** Reads them from a machine that can tell; null where they are read by eye. */
  reader: { label: string; read: () => GaugeReading[] } | null;
  onHot: (readings: GaugeReading[]) => void;
}) {
  const [texts, setTexts] = useState<Record<string, string>>({});
  const gauges = [...byEye, ...byDevice.filter(({ name }) => texts[name] !== undefined)];
  const readings = gauges.flatMap(({ name, unit }) => {
    const value = parseNumber(texts[name] ?? '');
    const dimension = dimensionOf(unit);
    return value === null ? [] : [{ gauge: name, value: dimension === null ? value : unbare(dimension, value) }];
  });
  const unitOf = (name: string): string => [...byEye, ...byDevice].find((gauge) => gauge.name === name)?.unit ?? '';
  const judged = judgeGauges(gauges, readings);
  const over = judged.find(({ verdict }) => verdict === 'high');
  const low = judged.find(({ verdict }) => verdict === 'low');
  const someRead = gauges.length === 0 || readings.length > 0;
  return (
    <Stack gap="sm">
      <div className={classes.gauges}>
        {judged.map(({ gauge, verdict }) => (
          <NumberField
            key={gauge.name}
            label={gauge.name}
            unit={gauge.unit}
            step={0.1}
            text={texts[gauge.name] ?? ''}
            onText={(text) => setTexts({ ...texts, [gauge.name]: text })}
            warning={verdict === 'unread' ? 'not read' : null}
          />
        ))}
      </div>
      {over && (
        <Text role="alert" c="var(--out)" fw={600}>
          {over.gauge.name} is above its limit: stop. Switch the machine off and call a licensed technician.
        </Text>
      )}
      {low && !over && <Text>{low.gauge.name} is below its limit: wait, and read it again.</Text>}
      <Group>
        {reader && (
          <Button
            size="lg"
            variant="default"
            onClick={() =>
              setTexts(
                Object.fromEntries(
                  reader.read().map(({ gauge, value }) => [gauge, String(numberShown(unitOf(gauge), value))]),
                ),
              )
            }
          >
            {reader.label}
          </Button>
        )}
        <Button size="lg" disabled={Boolean(over ?? low) || !someRead} onClick={() => onHot(readings)}>
          The gauges say it is hot
        </Button>
      </Group>
    </Stack>
  );
}
