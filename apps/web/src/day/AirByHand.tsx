import { Button, Group } from '@mantine/core';
import { limits } from '@tempera/core/house';
import { useState, type SubmitEvent } from 'react';
import { useWriteStep } from '../kernel/facts.tsx';
import { NumberField, readQuantity } from '../ui/NumberField.tsx';

/** The room's air, read off a thermo-hygrometer on the wall; the engine is less sure after it changed. */
export function AirByHand() {
  const write = useWriteStep();
  const [open, setOpen] = useState(false);
  const [temp, setTemp] = useState('');
  const [humidity, setHumidity] = useState('');
  if (!open) {
    return (
      <Button mih={48} px="sm" variant="default" onClick={() => setOpen(true)}>
        The air
      </Button>
    );
  }
  const [tempC, humidityPct] = [readQuantity(temp, 'airTempC'), readQuantity(humidity, 'humidityPct')];
  const keep = (event: SubmitEvent): void => {
    event.preventDefault();
    if (!tempC.ok || !humidityPct.ok) return;
    write({ step: 'air', tempC: tempC.value, humidityPct: humidityPct.value, measuredBy: 'hand' });
    setOpen(false);
    setTemp('');
    setHumidity('');
  };
  return (
    <form onSubmit={keep} aria-label="The air">
      <Group align="end">
        <Field label="The room" quantity="airTempC" aim={20} text={temp} onText={setTemp} />
        <Field label="Humidity" quantity="humidityPct" aim={50} text={humidity} onText={setHumidity} />
        <Button type="submit" mih={48} disabled={!tempC.ok || !humidityPct.ok}>
          Keep it
        </Button>
        <Button mih={48} variant="subtle" color="umber" onClick={() => setOpen(false)}>
          Never mind
        </Button>
      </Group>
    </form>
  );
}

interface FieldProps {
  label: string;
  quantity: 'airTempC' | 'humidityPct';
  aim: number;
  text: string;
  onText: (text: string) => void;
}

/** One of its two numbers, judged once something was typed. */
function Field({ label, quantity, aim, text, onText }: FieldProps) {
  const read = readQuantity(text, quantity);
  const { unit, step } = limits[quantity];
  return (
    <NumberField
      label={label}
      unit={unit}
      step={step}
      aim={aim}
      text={text}
      onText={onText}
      error={text !== '' && !read.ok ? read.error : null}
      warning={read.ok ? read.warning : null}
    />
  );
}
