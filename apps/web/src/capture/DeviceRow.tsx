import { Button, Group, NativeSelect, Stack, Text, TextInput } from '@mantine/core';
import { gPerUnit, massUnits } from '@tempera/core/capture';
import { parseNumber } from '@tempera/core/house';
import { useState } from 'react';
import { degrees, grams } from '../kernel/format.ts';
import classes from './Devices.module.css';
import type { DeviceNow, DeviceShelf } from './deviceShelf.ts';
import { belongsTo, kindWord, linkWord, nowhereWord, silenceOf } from './deviceWords.ts';
import { deviceKinds } from './knownDevice.ts';

/** A place at the bar that a device can belong to. */
export interface Station {
  id: string;
  name: string;
  kind: 'machine' | 'group' | 'grinder';
}

const baudRates = [1_200, 2_400, 4_800, 9_600, 19_200, 38_400, 57_600, 115_200];
const ANYWHERE = '';

/** One device: what it says now, what it is for, and why it is silent. */
export function DeviceRow({
  device,
  shelf,
  stations,
}: {
  device: DeviceNow;
  shelf: DeviceShelf;
  stations: readonly Station[];
}) {
  const [name, setName] = useState(device.name);
  const [asked, setAsked] = useState(false);
  const { id, kind, link } = device;
  const silence = silenceOf(device);
  const mine = stations.filter((station) => belongsTo[kind].includes(station.kind));
  return (
    <li className={`sheet ${classes.device}`} aria-label={device.name}>
      <div className={classes.says}>
        <span className={`number ${classes.reading}`}>{readingOf(device)}</span>
        <Text className="faint">
          {link === 'bridge' ? `${linkWord.bridge}, as “${device.key ?? ''}”` : linkWord[link]}
        </Text>
        {device.last.g?.stable === false && silence === null && <Text className="faint">settling</Text>}
      </div>
      <Stack gap="xs" className={classes.about}>
        {silence !== null && device.silent !== 'whichUnit' && <Text role="status">{silence}</Text>}
        {device.silent === 'whichUnit' && device.line !== null && (
          <UnitAsked line={device.line} onSay={(unit) => shelf.change(id, { unit })} />
        )}
        <Group align="end" className={classes.fields}>
          <TextInput
            label="Its name"
            size="lg"
            value={name}
            maxLength={60}
            onChange={({ currentTarget: { value } }) => {
              setName(value);
              if (value.trim() !== '') shelf.change(id, { name: value.trim() });
            }}
            onBlur={() => setName(device.name)}
          />
          <NativeSelect
            label="It is for"
            size="lg"
            value={kind}
            data={deviceKinds.map((value) => ({ value, label: kindWord[value] }))}
            onChange={({ currentTarget: { value } }) => {
              const found = deviceKinds.find((one) => one === value);
              if (found) shelf.change(id, { kind: found, stationId: null });
            }}
          />
          {mine.length > 0 && (
            <NativeSelect
              label="It stands at"
              size="lg"
              value={device.stationId ?? ANYWHERE}
              data={[
                { value: ANYWHERE, label: nowhereWord[kind] ?? 'wherever it is needed' },
                ...mine.map((station) => ({ value: station.id, label: station.name })),
              ]}
              onChange={({ currentTarget: { value } }) =>
                shelf.change(id, { stationId: value === ANYWHERE ? null : value })
              }
            />
          )}
          {link === 'serial' && (
            <NativeSelect
              label="Speed of its line"
              size="lg"
              value={String(device.baudRate)}
              data={baudRates.map((rate) => ({ value: String(rate), label: `${rate} baud` }))}
              onChange={({ currentTarget: { value } }) => shelf.change(id, { baudRate: Number(value) })}
            />
          )}
        </Group>
        <Group>
          {device.canTare && (
            <Button variant="default" mih={48} onClick={() => void shelf.tare(id)}>
              Set it to nought
            </Button>
          )}
          {device.silent === 'findAgain' && (link === 'bluetooth' || link === 'serial') && (
            <Button mih={48} onClick={() => void shelf.find(link).catch(() => undefined)}>
              Find it again
            </Button>
          )}
          <Button variant="subtle" mih={48} onClick={() => (asked ? shelf.remove(id) : setAsked(true))}>
            {asked ? 'Yes, forget it' : 'Forget it'}
          </Button>
        </Group>
      </Stack>
    </li>
  );
}

/** The number that stands on it. */
function readingOf({ last, silent, kind }: DeviceNow): string {
  if (silent !== null) return '–';
  const told = [
    ...(last.g ? [grams(last.g.value)] : []),
    ...(last['°C'] ? [degrees(last['°C'].value)] : []),
    ...(last['%'] ? [`${Math.round(last['%'].value)} %`] : []),
    ...(last.bar ? [`${last.bar.value.toFixed(1)} bar`] : []),
    ...(last.on ? [last.on.value > 0 ? 'pouring' : 'at rest'] : []),
    ...(last.count ? [`count ${Math.round(last.count.value)}`] : []),
  ];
  return told.length === 0 ? (kind === 'scale' ? 'at rest' : '–') : told.join(', ');
}

/** A line that names no unit, and what it may mean: whoever sees the scale knows. */
function UnitAsked({ line, onSay }: { line: string; onSay: (unit: (typeof massUnits)[number]) => void }) {
  const value = parseNumber(/[\d.,]+/.exec(line)?.[0] ?? '') ?? 0;
  return (
    <div role="group" aria-label="What its numbers mean">
      <Text>
        Its numbers name no unit: it sends <span className="number">{line}</span>. What does the scale itself show?
      </Text>
      <Group gap="xs" mt={4}>
        {massUnits.map((unit) => (
          <Button key={unit} variant="default" mih={48} onClick={() => onSay(unit)}>
            {value} {unit}
            {unit !== 'g' && ` (${grams(value * gPerUnit[unit])})`}
          </Button>
        ))}
      </Group>
    </div>
  );
}
