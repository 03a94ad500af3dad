import { ratioOf, yieldOfRatioG, parseNumber } from '@tempera/core/house';
import { useState } from 'react';
import type { useSheetForm } from '../forms/index.ts';
import { bare } from '../kernel/units.ts';
import { NumberField } from '../ui/NumberField.tsx';

/** Yield and ratio compute each other: a ratio typed here becomes the yield, a yield typed below becomes the ratio. */
export function RatioField({ sheetForm }: { sheetForm: ReturnType<typeof useSheetForm> }) {
  const { doseG, yieldG } = sheetForm.read as { doseG: number; yieldG: number };
  const [typed, setTyped] = useState<string | null>(null);
  const computed = ratioOf(doseG, yieldG);
  const ratio = typed === null ? NaN : (parseNumber(typed) ?? NaN);
  // What is typed stays as typed for as long as it is what the yield says.
  const holds = typed !== null && (Number.isNaN(ratio) || yieldOfRatioG(doseG, ratio) === yieldG);
  const text = holds ? typed : computed === null ? '' : String(computed);
  return (
    <NumberField
      label="Ratio, out for one in"
      unit=""
      step={0.1}
      text={text}
      onText={(next) => {
        setTyped(next);
        const value = parseNumber(next);
        if (value !== null && value > 0 && doseG > 0) {
          sheetForm.form.setFieldValue('yieldG', bare('mass', yieldOfRatioG(doseG, value), 1));
        }
      }}
    />
  );
}
