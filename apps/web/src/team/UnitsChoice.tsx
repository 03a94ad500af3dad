import { Text } from '@mantine/core';
import type { Session } from '@tempera/contract/team';
import { massUnits, pressureUnits, temperatureUnits, volumeUnits, type Units } from '@tempera/core/house';
import { sentenceOf } from '../kernel/api.ts';
import { OneOf } from '../ui/OneOf.tsx';
import { useChangeUnits } from './queries.ts';
import classes from './UnitsChoice.module.css';

const choices: readonly { of: keyof Units; label: string; units: readonly string[] }[] = [
  { of: 'mass', label: 'Weight', units: massUnits },
  { of: 'volume', label: 'Volume', units: volumeUnits },
  { of: 'temperature', label: 'Temperature', units: temperatureUnits },
  { of: 'pressure', label: 'Pressure', units: pressureUnits },
];

/** What this person reads and types, on every device they sign in to. */
export function UnitsChoice({ session }: { session: Session }) {
  const change = useChangeUnits();
  return (
    <section aria-label="Units" className={classes.units}>
      {choices.map(({ of, label, units }) => (
        <div key={of}>
          <Text className="faint" id={`unit-${of}`}>
            {label}
          </Text>
          <OneOf
            labelledBy={`unit-${of}`}
            fullWidth
            options={units}
            value={session.units[of]}
            onChange={(unit) => change.mutate({ ...session.units, [of]: unit })}
          />
        </div>
      ))}
      {change.error && (
        <Text role="alert" c="var(--out)">
          {sentenceOf(change.error)}
        </Text>
      )}
    </section>
  );
}
