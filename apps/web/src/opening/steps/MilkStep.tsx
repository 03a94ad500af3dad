import { Button, Checkbox, Stack, Text } from '@mantine/core';
import { parseNumber } from '@tempera/core/house';
import { checkThermometer, stopSteamC, type ThermometerIn } from '@tempera/core/opening';
import { useState } from 'react';
import { useSheets } from '../../kernel/sheets.ts';
import { BandRow } from '../../ui/BandRow.tsx';
import { degrees } from '../../kernel/format.ts';
import { unbare } from '../../kernel/units.ts';
import { NumberField } from '../../ui/NumberField.tsx';
import { steamWord } from '../boilerWords.ts';
import classes from '../Opening.module.css';
import { useBoilerOf } from '../useBoilerOf.ts';
import { OneOf } from '../../ui/OneOf.tsx';
import { Warn } from './Warn.tsx';
import type { StepProps } from './stepProps.ts';

/** Where no drink says otherwise. */
const USUAL = { servedC: 60, milkMl: 200 };
const STEAM_BAR = { low: 1, high: 1.5 };
const TRUSTED_C = 1;

/** The wand blown clear, its pressure, the thermometer in ice or boiling water, and where to stop. */
export function MilkStep({ view, write }: StepProps) {
  const { data: cafes } = useSheets('cafe');
  const { data: drinks } = useSheets('drink');
  const { data: machines } = useSheets('machine');
  const [purged, setPurged] = useState(false);
  const [steamText, setSteamText] = useState('');
  const [held, setHeld] = useState<ThermometerIn | 'none'>('ice');
  const [showedText, setShowedText] = useState('');
  const altitudeM = cafes?.[0]?.sheet.altitudeM ?? 0;
  const milky = drinks?.filter(({ sheet, retired }) => !retired && sheet.milkMl > 0).map(({ sheet }) => sheet) ?? [];
  const usual = milky.toSorted((a, b) => b.orders - a.orders)[0];
  const gauge = machines
    ?.flatMap(({ id, sheet }) => (view.bar.machines.some((machine) => machine.id === id) ? sheet.gauges : []))
    .find(({ unit, max }) => unit === 'bar' && max <= 2);
  const window = gauge ? { low: gauge.min, high: gauge.max } : STEAM_BAR;
  const typedSteam = parseNumber(steamText);
  const steamBar = typedSteam === null ? null : unbare('pressure', typedSteam);
  const typed = parseNumber(showedText);
  const showedC = typed === null ? null : unbare('temperature', typed);
  const verdict = showedC === null || held === 'none' ? null : checkThermometer(held, showedC, altitudeM);
  const stopC = stopSteamC(usual?.milkTempC ?? USUAL.servedC, usual?.milkMl ?? USUAL.milkMl, verdict?.offC ?? 0);
  const keep = (): void => {
    const milk = { step: 'milk' as const, purged, steamBar };
    if (held === 'none') write({ ...milk, thermometer: null, stopC: null });
    else if (showedC !== null) write({ ...milk, thermometer: { in: held, showedC }, stopC });
  };
  const over = steamBar !== null && steamBar > window.high;
  const boiler = useBoilerOf(view, null);
  const steams = boiler && steamWord[boiler];
  return (
    <Stack>
      {steams && <Text>{steams}</Text>}
      <Checkbox
        size="lg"
        label="The wand is blown clear into a cloth, and wiped"
        checked={purged}
        onChange={(event) => setPurged(event.currentTarget.checked)}
      />
      <div className={classes.fields}>
        <NumberField
          label="Steam"
          unit="bar"
          step={0.1}
          text={steamText}
          onText={setSteamText}
          optional="if measured"
        />
      </div>
      {steamBar !== null && <BandRow name="Steam" unit="bar" value={steamBar} window={window} />}
      {over && <Warn>Steam is above its limit: stop. Switch the machine off and call a licensed technician.</Warn>}
      <Thermometer
        held={held}
        onHeld={setHeld}
        text={showedText}
        onText={setShowedText}
        showedC={showedC}
        verdict={verdict}
      />
      {verdict && (
        <Text size="lg" aria-live="polite">
          {verdict.trusted
            ? `Stop the steam at ${degrees(stopC, 0)} on it: the milk climbs on to ${degrees(usual?.milkTempC ?? USUAL.servedC, 0)}.`
            : `It is ${degrees(Math.abs(verdict.offC))} off. Stop at ${degrees(stopC, 0)} as it shows, and get another.`}
        </Text>
      )}
      <Button
        size="xl"
        className={classes.alone}
        disabled={!purged || over || (held !== 'none' && showedC === null)}
        onClick={keep}
      >
        The milk station is ready
      </Button>
    </Stack>
  );
}

interface ThermometerProps {
  held: ThermometerIn | 'none';
  onHeld: (held: ThermometerIn | 'none') => void;
  text: string;
  onText: (text: string) => void;
  showedC: number | null;
  verdict: ReturnType<typeof checkThermometer> | null;
}

/** What the thermometer is held in, and what it shows against what it should. */
function Thermometer({ held, onHeld, text, onText, showedC, verdict }: ThermometerProps) {
  return (
    <>
      <div className={classes.fields}>
        <div>
          <Text fw={600} id="held-in">
            The thermometer is held in
          </Text>
          <OneOf
            labelledBy="held-in"
            fullWidth
            value={held}
            onChange={onHeld}
            options={[
              { value: 'ice', label: 'Melting ice' },
              { value: 'boiling', label: 'Boiling water' },
              { value: 'none', label: 'There is none' },
            ]}
          />
        </div>
      </div>
      {held !== 'none' && (
        <div className={classes.fields}>
          <NumberField label="The thermometer shows" unit="°C" step={0.5} text={text} onText={onText} />
        </div>
      )}
      {held === 'none' && (
        <Text size="lg">
          By the hand on the jug: stop when it turns too hot to keep the palm there; the milk climbs on from that.
        </Text>
      )}
      {verdict && showedC !== null && (
        <BandRow
          name="Thermometer"
          unit="°C"
          value={showedC}
          window={{ low: verdict.shouldC - TRUSTED_C, high: verdict.shouldC + TRUSTED_C }}
        />
      )}
    </>
  );
}
